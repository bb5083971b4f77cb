import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { ClearStation } from './clear-station';

/** An engine of which everything is known that the gap follows from. */
function known() {
  const job = book();
  const described = job.entries[0];
  if (described?.kind !== 'build.described') throw new Error('a book opens with its description');
  job.write('build.described', {
    ...described.body,
    replaces: described.id,
    engine: { ...described.body.engine, rockerRatio: { intake: 1.5, exhaust: 1.5 } },
  });
  const setting = job.proved();
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: 8.382, timing: [{ height: 1.27, at: 'lobe', opens: 3, closes: 37 }] },
    exhaust: { centreline: 111, lobeLift: 8.382, timing: [{ height: 1.27, at: 'lobe', opens: 45, closes: 3 }] },
  });
  job.pair(setting, 66, 153);
  job.write('clearance.set-up', {
    replaces: null,
    intake: { angle: 0, pocket: 'flat', minimum: 2.03 },
  });
  return job;
}

test('with nothing known it asks, and refers to the maker’s manual', async () => {
  const here = await openStation('clear', ClearStation, book().entries);
  expect(screen.getByTestId('sentence')).toHaveTextContent('How near do the valves come to the pistons?');
  expect(here.words()).toMatch(/the engine maker’s manual has the last word/);
});

test('a gap typed at a place of the crank is recorded in millimetres, and swept to the tightest', async () => {
  const here = await openStation('clear', ClearStation, known().entries);
  await here.type('gap-intake-10', '0.160');
  await here.press('gaps-record-intake');
  const last = here.last();
  expect(last?.kind).toBe('clearance.measured');
  expect(last?.body).toMatchObject({ valve: 'intake', gaps: [{ at: 10, gap: expect.closeTo(4.064, 3) }] });
  expect(screen.getByTestId('clearance-intake')).toHaveTextContent(/at the tightest/);
});

test('a gap that no engine has is refused, and nothing is written', async () => {
  const here = await openStation('clear', ClearStation, known().entries);
  const before = here.entries().length;
  await here.type('gap-intake-10', '60 mm');
  await here.press('gaps-record-intake');
  expect(here.entries()).toHaveLength(before);
  expect(here.words()).toMatch(/is no clearance\. Check the unit\./);
});

test('too near is said as loud as it is: do not run it', async () => {
  const here = await openStation('clear', ClearStation, known().entries);
  await here.type('gap-intake-10', '0.040');
  await here.press('gaps-record-intake');
  expect(screen.getByTestId('sentence')).toHaveTextContent(/^Too near: .* Do not run it like this\.$/);
});
