import { book, id } from '../testing/book';
import type { Entry } from '../record/entry';
import { boardOf } from './board';
import { derive } from './report';

const shown = (entries: readonly Entry[]) => {
  const report = derive(entries);
  if (!report) throw new Error('the logbook says what engine it is');
  return { board: boardOf(report, entries), report };
};

test('the board follows the work: what to do now, what was read last, the verdict once there is one', () => {
  const job = book();
  expect(shown(job.entries).board).toMatchObject({ station: 'zero', last: null, verdict: null });

  job.contact(null, id(), 'before', -20);
  const first = shown(job.entries);
  expect(first.board.now).toBe(first.report.zero.sentence);
  expect(first.board.last).toEqual({ figure: '20°', word: 'before', label: expect.any(String) });
  expect(first.board.wheel).toMatchObject({ position: 340, tdc: null, wanted: [] });

  const setting = job.proved();
  expect(shown(job.entries).board).toMatchObject({ station: 'card', now: 'Enter the cam card and the target.' });
  job.write('card.entered', { replaces: null, intake: { centreline: 107 } });
  expect(shown(job.entries).board).toMatchObject({ station: 'read', now: 'Read the intake centreline.' });

  const round = id();
  job.reading(setting, round, 'opening', 64);
  const open = shown(job.entries).board;
  expect(open.now).toMatch(/^Over the nose/);
  expect(open.last).toMatchObject({ figure: '64°', word: 'after' });
  const tdc = open.wheel.tdc ?? NaN;
  expect(open.wheel.wanted).toEqual([{ at: tdc + 107, valve: 'intake' }]);

  job.reading(setting, round, 'closing', 154);
  const judged = shown(job.entries);
  expect(judged.board.verdict?.headline).toBe(judged.report.verdict.headline);
  // What is to be done stands there once.
  expect(judged.board).toMatchObject({ station: 'decide', now: judged.report.verdict.action });
  expect(judged.board.verdict?.action).toBeNull();
});

test('a reading that was taken back is not shown, and a lift without a wheel turns nothing', () => {
  const job = book();
  const setting = job.proved();
  const [lift] = job.round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift: 8.38 } }], { setting });
  const { board } = shown(job.entries);
  expect(board.last).toMatchObject({ figure: '0.3299', word: 'in', label: 'peak lift' });
  expect(board.wheel.position).toBe(board.wheel.tdc);
  job.write('entry.voided', { voids: lift ?? '' });
  expect(shown(job.entries).board.last?.label).not.toBe(board.last?.label);
});
