import { book } from '../testing/book';
import { listPlace } from './list-headline';

type Job = ReturnType<typeof book>;

/** Rockers on a stud, and a length that was tried. */
const tryRockers = (job: Job): void => {
  job.write('rockers.set-up', { replaces: null, mounted: 'stud', arm: 36, tip: 8, step: 1.27 });
  job.write('rocker.tried', { valve: 'intake', cylinder: 1, length: 201.3, seen: 'above' });
};
const proveTdc = (job: Job): void => void job.proved();

test.each<[string, readonly ((job: Job) => void)[], string]>([
  ['nothing measured yet', [], 'zero'],
  ['rockers tried, no cam looked at', [tryRockers], 'rockers'],
  ['TDC proved', [proveTdc], 'read'],
  ['rockers tried, and TDC proved', [tryRockers, proveTdc], 'read'],
])('%s: a list leads on to what is due', (_what, steps, place) => {
  const job = book();
  for (const step of steps) step(job);
  expect(listPlace(job.report())).toBe(place);
});
