import { book } from '@yosoku/core/testing/book';
import { derive } from '@yosoku/core/report/report';
import { whatFollows } from './what-follows';

test('each entry stands beside what it changed, and nothing that was said before it', () => {
  const job = book();
  job.pass(null, -21, 26.5);
  const followed = whatFollows(job.entries, derive);
  expect(followed).toHaveLength(job.entries.length);
  expect(followed.at(-2)?.says).toEqual([
    { station: 'zero', words: 'Turn it backwards, gently, until the piston meets the stop. Read the wheel.' },
  ]);
  expect(followed.at(-1)?.says).toEqual([
    { station: 'zero', words: 'Slip the wheel 2¾° counter-clockwise, against the way it runs.' },
  ]);
});
