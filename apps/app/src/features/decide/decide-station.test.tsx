import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { WIDE, openStation } from '@/testing/open-station';
import { DecideStation } from './decide-station';

const verdict = (): string => String(screen.getByTestId('verdict').props.children);

/** A cam 2.5° late, read once. */
function late() {
  const job = book();
  const setting = job.proved();
  job.card();
  job.pair(setting, 66, 153);
  return { job, setting };
}

test('with nothing measured it says what is missing, and leads there', async () => {
  const here = await openStation('decide', DecideStation, book().entries);
  expect(verdict()).toMatch(/^No verdict yet/);
  await here.press('next');
  expect(here.went()).toEqual([expect.stringMatching(/\/zero$/)]);
});

test('a late cam: how far, which way, what to do before it, and what it rests on', async () => {
  const { job } = late();
  const here = await openStation('decide', DecideStation, job.entries);
  expect(verdict()).toBe('The cam sits 2.5° late, retarded, ±0.6°.');
  expect(screen.getByTestId('action')).toHaveTextContent(/^First .*make the closing check\. Then advance it 2\.5°/);
  expect(here.words()).toMatch(/check it before the engine runs, as the engine maker’s manual says/);
  expect(here.words()).toMatch(/100 % of the result/);
  await here.press('why');
  expect(screen.getByTestId('why-text')).toHaveTextContent(/^From one measurement/);
});

test('the closing check is the first thing to press; made, it is said and the move is next', async () => {
  const { job } = late();
  const here = await openStation('decide', DecideStation, job.entries);
  await here.press('closing');
  await here.reads('23¾', 'before');
  expect(here.words()).not.toMatch(/Something has moved/);
  expect(screen.getByTestId('closing-same')).toHaveTextContent(/nothing has moved since TDC/);
  expect(here.words()).not.toMatch(/the closing check tells/);
  await here.press('plan-move');
  expect(here.went().at(-1)).toMatch(/\/move$/);
});

test('a wheel that slipped before the closing check forbids the move', async () => {
  const { job, setting } = late();
  job.write('zero.reading', {
    zero: job.zero,
    setting,
    pass: '00000000-0000-4000-8000-00000000cccc',
    side: 'before',
    wheel: { ring: '0-180', shows: 20, side: 'before' },
    closing: true,
  });
  await openStation('decide', DecideStation, job.entries);
  expect(verdict()).toMatch(/^Do not move the cam yet/);
  expect(screen.queryByTestId('plan-move')).toBeNull();
  // Nor can it be left so: nobody knows where it sits.
  expect(screen.queryByTestId('leave-it')).toBeNull();
});

test('a late cam is left as it is with a reason, and not without one; taken back, the move is next again', async () => {
  const { job } = late();
  const here = await openStation('decide', DecideStation, job.entries);
  await here.press('leave-it');
  await here.press('accept');
  expect(here.words()).toMatch(/Give the reason/);
  await here.type('accept-reason', '  mild street cam ');
  await here.press('accept');
  expect(here.last()).toMatchObject({
    kind: 'verdict.accepted',
    body: { reason: 'mild street cam', said: 'The cam sits 2.5° late, retarded, ±0.6°.', of: { what: 'place' } },
  });
  expect(verdict()).toBe('The cam sits 2.5° late, retarded, ±0.6°.');
  expect(screen.getByTestId('accepted')).toHaveTextContent(/^Left as it is: mild street cam/);
  await here.press('to-clear');
  expect(here.went().at(-1)).toMatch(/\/clear$/);
  await here.press('take-back');
  expect(screen.queryByTestId('accepted')).toBeNull();
  expect(screen.getByTestId('plan-move')).toBeTruthy();
});

test('a cam on its target is left alone, and what was moved after all can still be said', async () => {
  const job = book();
  const setting = job.proved();
  job.card();
  job.pair(setting, 63.5, 150.5);
  const here = await openStation('decide', DecideStation, job.entries);
  expect(here.report().verdict.kind).toBe('leave');
  expect(screen.getByTestId('to-clear')).toHaveTextContent('On to Clear: valve to piston');
  await here.press('moved-after-all');
  expect(here.words()).toMatch(/What was changed on the drive/);
});

test('readings that cannot all be right are not moved by: the likely fault is named with how to check it', async () => {
  const { job, setting } = late();
  job.pair(setting, 76, 153);
  const here = await openStation('decide', DecideStation, job.entries);
  expect(verdict()).toMatch(/^Do not move the cam yet/);
  expect(here.words()).toMatch(/Check: /);
});

test('a zero that fell takes the verdict with it', async () => {
  const { job, setting } = late();
  job.write('zero.disturbed', { setting, what: 'fixing', keeps: [] });
  await openStation('decide', DecideStation, job.entries);
  expect(verdict()).not.toMatch(/sits/);
});

test('Undo takes the last reading back, by button and by key', async () => {
  const { job } = late();
  const here = await openStation('decide', DecideStation, job.entries, { size: WIDE });
  await here.keys('u');
  expect(verdict()).toBe('No verdict yet: one side of the nose is missing.');
  await here.press('undo');
  expect(verdict()).toBe('No verdict yet: the cam has not been measured.');
});

test('a figure of the card that is most likely wrong: named by how much, and the way leads to the card, not to the wheel', async () => {
  const job = book();
  const setting = job.proved();
  const height = 1.27;
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: 110, lobeLift: 8.382, timing: [{ height, at: 'lobe', opens: 3, closes: 37 }] },
  });
  for (let time = 0; time < 2; time += 1) {
    job.pair(setting, 63.5, 150.5);
    job.round(
      'events',
      'intake',
      [
        { shows: { kind: 'above-base', flank: 'opening', lift: height }, at: -3 },
        { shows: { kind: 'above-base', flank: 'closing', lift: height }, at: 217 },
      ],
      { setting },
    );
  }
  const here = await openStation('decide', DecideStation, job.entries);
  expect(verdict()).toMatch(/most likely the card’s ICL is wrong by about 3\.0°: misprinted, or typed wrong\.$/);
  await here.press('next');
  expect(here.went()).toEqual([expect.stringMatching(/\/card$/)]);
});
