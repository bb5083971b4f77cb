import { book, id } from '../testing/book';
import { kindOfMove } from '../testing/kind-of-move';
import { readingAt } from '../crank/wheel';
import { fold } from '../record/fold';
import { derive } from '../report/report';
import { findAll } from './find-all';

/** Texts that a finding only hands on: what a builder typed, a refusal (`problem.ts`), and what a member of a family says of itself. */
const HANDED_ON = new Set([
  'build',
  'accepted',
  'problem',
  'predicted',
  'correction',
  'uncertainty',
  'views',
  'checks',
  'proposal',
  'card',
  'budget',
  'endPlay',
]);
const SENTENCE = /[a-z]+ [a-z]+ [a-z]+ [a-z]+/;

/** Every text of a finding that reads like a sentence, with where it stands. */
function sentencesIn(found: unknown, at = 'found', seen = new Set<unknown>()): string[] {
  if (typeof found === 'string') return SENTENCE.test(found) ? [`${at}: ${found}`] : [];
  if (typeof found !== 'object' || found === null || seen.has(found)) return [];
  seen.add(found);
  const parts: [string, unknown][] =
    found instanceof Map ? [...found].map(([key, value]) => [String(key), value]) : Object.entries(found);
  return parts.flatMap(([key, value]) => (HANDED_ON.has(key) ? [] : sentencesIn(value, `${at}.${key}`, seen)));
}

/** Every text of a Report, with where it stands. */
function textsIn(told: unknown, at = 'report'): [string, string][] {
  if (typeof told === 'string') return [[at, told]];
  if (typeof told !== 'object' || told === null) return [];
  return Object.entries(told).flatMap(([key, value]) => textsIn(value, `${at}.${key}`));
}

/** A job from the first contact to a move that did not go far enough, a zero that fell, and a second check. */
function wholeJob(units: 'in' | 'mm') {
  const job = book({ ring: '0-180' }, units);
  job.pass(null, -20, 25);
  const setting = job.set();
  job.pass(setting, -22, 23.5);
  const wrong = job.entries.slice(-2);
  for (const entry of wrong) job.write('entry.voided', { voids: entry.id, reason: 'the stop was loose' });
  job.pass(setting, -22.5, 22.5);
  job.write('card.entered', { replaces: null, intake: { centreline: 107, lobeLift: 8.382 } });
  job.pair(setting, 70, 157);
  job.pair(setting, 70.5, 157);
  job.round('identity', 'intake', [{ shows: { kind: 'peak-lift', lift: 8.4 } }]);
  const part = id();
  job.write('drive.fitted', {
    replaces: null,
    trial: job.trial,
    camTurns: 'with-crank',
    parts: [
      {
        part,
        name: 'the gear',
        library: null,
        hardware: { kind: 'keyways', stamped: 'crank', marks: [-6, -4, -2, 0, 2, 4, 6] },
        cam: 'all',
        bank: null,
        at: { mark: '0' },
        experience: [],
      },
    ],
  });
  const [plan] = derive(job.entries)?.move.plans ?? [];
  const trial = job.write('trial.begun', { after: job.trial, move: plan && kindOfMove(plan) });
  job.pair(setting, 72, 159, { trial });
  job.write('zero.disturbed', { setting, what: 'pointer', keeps: [] });
  const zero = job.write('zero.begun', { after: job.zero, method: 'positive-stop', cylinder: 1 });
  for (const [side, at] of [
    ['before', -21],
    ['after', 24],
  ] as const)
    job.write('zero.reading', { zero, setting: null, pass: id(), side, wheel: readingAt({ ring: '0-180' }, at) });
  return job.entries;
}

describe.each(['in', 'mm'] as const)('after every entry of a job in %s', (units) => {
  const entries = wholeJob(units);
  const steps = entries.map((_, at) => entries.slice(0, at + 1));

  test('findings are facts: no sentence stands in them', () => {
    for (const some of steps) {
      const build = fold(some);
      expect(build && sentencesIn(findAll(build))).toEqual([]);
    }
  });

  test('the Report has a sentence for each, without a hole in it', () => {
    for (const some of steps) {
      const report = derive(some);
      expect(report?.zero.sentence).toMatch(/^[A-Z].*\.$/);
      expect(report?.verdict.headline).toMatch(/^[A-Z].*\.$/);
      expect(report?.verdict.action).toMatch(/^[A-Z].*\.$/);
      expect(report?.move.sentence).toMatch(/^[A-Z].*\.$/);
      expect(report?.proof.sentence).toMatch(/^[A-Z0-9].*\.$/);
      for (const [at, text] of textsIn(report))
        expect(/undefined|NaN|null|\{|\[object|\s\s| [.,]|\.\.$/.test(text) ? `${at}: ${text}` : '').toBe('');
    }
  });

  test('the codes on the way are those of the work', () => {
    const found = steps.flatMap((some) => {
      const build = fold(some);
      return build ? [findAll(build)] : [];
    });
    const inOrder = (codes: readonly string[]): string[] => codes.filter((code, at) => code !== codes[at - 1]);
    expect(inOrder(found.map(({ zero }) => zero.says.code))).toEqual(
      expect.arrayContaining(['begin', 'read', 'set', 'not-proved', 'proved', 'disturbed']),
    );
    expect(inOrder(found.map(({ trial }) => trial?.decision.verdict?.because ?? 'none'))).toEqual(
      expect.arrayContaining(['none', 'outside', 'zero-unproved']),
    );
    expect(inOrder(found.map(({ move }) => move.says.code))).toEqual(
      expect.arrayContaining(['no-verdict', 'unfitted', 'reaches']),
    );
    expect(inOrder(found.map(({ proof }) => proof.because))).toEqual(['nothing-moved', 'read', 'wrong-way', 'doubt']);
  });
});
