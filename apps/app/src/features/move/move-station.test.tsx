import { screen } from '@testing-library/react-native';
import { book, id } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { MoveStation } from './move-station';

/** A cam 2.5° late on a gear with keyways every 2°. */
function late(parts = true) {
  const job = book();
  const setting = job.proved();
  job.card();
  job.pair(setting, 66, 153);
  if (parts)
    job.write('drive.fitted', {
      replaces: null,
      trial: job.trial,
      camTurns: 'with-crank',
      parts: [
        {
          part: id(),
          name: 'Crank gear',
          library: null,
          hardware: { kind: 'keyways', stamped: 'crank', marks: [-4, -2, 0, 2, 4] },
          cam: 'all',
          bank: null,
          at: { mark: '0' },
          experience: [],
        },
      ],
    });
  return { job, setting };
}

const sentence = (): string => String(screen.getByTestId('sentence').props.children);

test('without a verdict there is nothing to plan', async () => {
  await openStation('move', MoveStation, book().entries);
  expect(sentence()).toBe('There is no verdict yet to move by. Measure the cam, then decide.');
});

test('without hardware it asks what is on the drive', async () => {
  const here = await openStation('move', MoveStation, late(false).job.entries);
  expect(sentence()).toMatch(/^Say what timing hardware is on the drive/);
  expect(here.words()).toMatch(/Nothing yet\. Add what this engine’s cam can be moved with/);
});

test('what to set, what that leaves, and every step with its caution', async () => {
  const here = await openStation('move', MoveStation, late().job.entries);
  expect(here.words()).toMatch(/crank gear.*\+2 keyway/);
  expect(here.words()).toMatch(/Turn the crank by hand two full turns the way it runs\./);
  expect(here.words()).toMatch(/Any resistance that cannot be explained is a valve on a piston/);
  expect(here.words()).toMatch(/Valve-to-piston clearance is not known yet\./);
});

test('set as said, wheel touched: a trial begins with what was expected of it, and TDC is to be found again', async () => {
  const { job, setting } = late();
  const here = await openStation('move', MoveStation, job.entries);
  await here.press('move-next');
  await here.press('set-touched');
  const kinds = here.entries().map(({ kind }) => kind);
  expect(kinds.slice(-2).sort()).toEqual(['trial.begun', 'zero.disturbed']);
  const begun = here.entries().findLast(({ kind }) => kind === 'trial.begun');
  expect(begun?.body).toMatchObject({
    after: job.trial,
    move: { cams: [{ cam: 'single', by: expect.closeTo(2, 1) }] },
  });
  expect(here.entries().find(({ kind }) => kind === 'zero.disturbed')?.body).toMatchObject({ setting });
});

test('a cam on its target is not to be moved', async () => {
  const job = book();
  const setting = job.proved();
  job.card();
  job.pair(setting, 63.5, 150.5);
  await openStation('move', MoveStation, job.entries);
  expect(sentence()).toBe('The cam is on target. Do not move it.');
});
