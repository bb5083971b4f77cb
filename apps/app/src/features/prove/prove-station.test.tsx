import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { ProveStation } from './prove-station';

const sentence = (): string => String(screen.getByTestId('sentence').props.children);

/** A cam 2.5° late, then moved; the wheel stayed. */
function moved() {
  const job = book();
  const setting = job.proved();
  job.card();
  job.pair(setting, 66, 153);
  const view = job.report().trials[0]?.views[0];
  const trial = job.write('trial.begun', {
    after: job.trial,
    why: 'moved',
    move: {
      parts: [],
      cams: [{ cam: 'single', bank: 1, by: 2.5, standard: 0.2 }],
      predicted: [
        {
          view: view?.key ?? '',
          title: view?.title ?? '',
          shows: '107.0° ATDC',
          value: 107,
          unit: 'crank degrees',
          standard: 0.3,
        },
      ],
    },
  });
  return { job, setting, trial };
}

test('before any move there is nothing to prove', async () => {
  await openStation('prove', ProveStation, book().entries);
  expect(sentence()).toBe('Nothing has been moved yet. Decide first, then move.');
});

test('after a move it asks for the fewest readings that show whether it worked', async () => {
  const here = await openStation('prove', ProveStation, moved().job.entries);
  expect(sentence()).toBe('2 readings show whether it worked. Read the intake centreline.');
  await here.press('prove-next');
  expect(here.went().at(-1)).toMatch(/\/read$/);
});

test('read as predicted, it is proved, figure beside figure', async () => {
  const { job, setting, trial } = moved();
  job.pair(setting, 63.5, 150.5, { trial });
  const here = await openStation('prove', ProveStation, job.entries);
  expect(sentence()).toMatch(/^Proved\./);
  expect(here.words()).toMatch(/107\.0° ATDC[\s\S]*107\.00° ATDC/);
});

test('moved the wrong way, it says that it is not there yet', async () => {
  const { job, setting, trial } = moved();
  job.pair(setting, 68.5, 155.5, { trial });
  await openStation('prove', ProveStation, job.entries);
  expect(sentence()).toMatch(/^(Not there yet|It went the wrong way)\. The cam sits 5\.0° late/);
});

test('a zero that fell with the move comes first, and what was read on it does not count', async () => {
  const { job, setting, trial } = moved();
  job.pair(setting, 63.5, 150.5, { trial });
  job.write('zero.disturbed', { setting, what: 'with-drive', keeps: [] });
  const here = await openStation('prove', ProveStation, job.entries);
  expect(sentence()).not.toMatch(/^Proved/);
  expect(here.words()).toMatch(/TDC is not proved/);
});
