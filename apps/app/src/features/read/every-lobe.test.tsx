import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { EveryLobe } from './every-lobe';

const sentence = (): string => String(screen.getByTestId('sentence').props.children);

test('every lobe is led to one after the other, and the worn one is named', async () => {
  const job = book();
  const here = await openStation('lobes', EveryLobe, job.entries);
  expect(sentence()).toMatch(/^Cylinder 1, intake: .* turn to its peak/);
  for (let at = 0; at < 12; at += 1) {
    const said = /Cylinder (\d), (intake|exhaust)/.exec(sentence());
    const worn = said?.[1] === '3' && said[2] === 'exhaust';
    for (const key of worn ? '318' : '330') await here.press(`key-${key}`);
    await here.press('record');
    expect(here.last()?.body).toMatchObject({ method: 'identity', cylinder: Number(said?.[1]), valve: said?.[2] });
  }
  expect(sentence()).toBe('All 12 lobes are read.');
  expect(here.words()).toMatch(/exhaust lobe of cylinder 3 lifts 0\.012 in less than the others/);
  expect(here.words()).toMatch(/6 intake lifts, all alike/);
});

test('any lobe can be taken out of turn, and its centreline is read at its own cylinder', async () => {
  const job = book();
  job.proved();
  const here = await openStation('lobes', EveryLobe, job.entries);
  await here.press('lobe-5-exhaust');
  expect(sentence()).toMatch(/^Cylinder 5, exhaust/);
  await here.press('lobe-centreline');
  expect(here.went().at(-1)).toMatch(/read$/);
});
