import { readTrace } from '../cam/trace';
import { flanksAt, lobeAt } from '../cam/lobe';
import { PERFECT_BOX, USUAL_BOX, damage, makeBenchBox } from '../simulation/bench-box';
import { makeRandom } from '../statistics/random';
import { type Heard, SILENT, conditionOf, hear, steadyOf } from './hear';
import { checksum, formatLine, parseLine } from './line';
import { recordTurn } from './record-turn';
import { ringAt, syncAt, syncError } from './sync';

const LOBE = { peak: 8.4, nose: 108, half: 150, power: 3, lean: 1.5 };
const liftAt = (angle: number): number => lobeAt(LOBE, angle).lift;
const listen = (lines: readonly (string | null)[], every = 5, from: Heard = SILENT): Heard =>
  lines.reduce((heard, line, i) => (line === null ? heard : hear(heard, line, i * every)), from);

describe('a line', () => {
  test('the checksum is CRC-32 as published', () => {
    // ISO-HDLC check value for "123456789": cbf43926 (ISO 3309, ITU-T V.42).
    expect(checksum('123456789')).toBe('cbf43926');
  });
  test('what is said is heard, in either unit', () => {
    const sample = { box: 'bench', seq: 7, ms: 1200, angle: -69.25, lifts: [1.27, null] as const };
    expect(formatLine(sample)).toMatch(/^yb1 bench 7 1200 -69\.250 1\.2700 - mm [0-9a-f]{8}$/);
    expect(parseLine(formatLine(sample))).toEqual({ ok: true, sample });
    const inches = parseLine(formatLine(sample, 'in'));
    expect(inches.ok && inches.sample.lifts[0]).toBeCloseTo(1.27, 4);
  });
  test('no damage gets through, and nothing throws', () => {
    const random = makeRandom(8);
    for (let i = 0; i < 20_000; i += 1) {
      const line = formatLine({ box: 'b', seq: i, ms: 3 * i, angle: i / 7, lifts: [i / 9000, -0.01] });
      const damaged = damage(line, random);
      if (damaged !== line) expect(parseLine(damaged).ok).toBe(false);
    }
    for (const rubbish of ['', ' ', 'yb1', '\u0000\u0000', 'x'.repeat(100_000), 'yb1 a b c d e f g h'])
      expect(parseLine(rubbish).ok).toBe(false);
    const sealed = (text: string): string => `${text} ${checksum(text)}`;
    for (const text of [
      'yb1 a 1 1 1e9 0 - mm',
      'yb1 a 1 1 NaN 0 - mm',
      'yb1 a 1 1 5 0 - cm',
      'yb1 a -1 1 5 0 - mm',
      'yb1 a 1 1 5 999 - mm',
    ])
      expect(parseLine(sealed(text))).toEqual({ ok: false, why: 'figure' });
  });
});

describe('what is heard', () => {
  const box = makeBenchBox('bench', PERFECT_BOX, makeRandom(1));
  const lines = Array.from({ length: 40 }, (_, i) => box(5 * i, 10, [1.27, null])) as string[];
  test('the steady value, and that it is live; then silence is a lost instrument within a second', () => {
    const heard = listen(lines);
    expect(steadyOf(heard)).toMatchObject({ angle: 10, lifts: [1.27, null] });
    expect(conditionOf(heard, heard.at + 900)).toBe('live');
    expect(conditionOf(heard, heard.at + 1001)).toBe('lost');
    expect(conditionOf(SILENT, 5)).toBe('nothing-yet');
  });
  test('lines that have waited on the way tell of the past: they are not live', () => {
    const later = listen(
      Array.from({ length: 200 }, (_, i) =>
        formatLine({ box: 'bench', seq: 41 + i, ms: 205 + 5 * i, angle: 10, lifts: [0, null] }),
      ),
      5,
      listen(lines),
    );
    expect(conditionOf(later, later.at)).toBe('live');
    const stuck = hear(
      later,
      formatLine({ box: 'bench', seq: 241, ms: 1205, angle: 10, lifts: [0, null] }),
      later.at + 400,
    );
    expect(conditionOf(stuck, stuck.at)).toBe('behind');
    // Neither the end of the box's counter nor a box that began anew is a line that waited.
    const end = 2 ** 32 - 500;
    const round = listen(
      Array.from({ length: 200 }, (_, i) =>
        formatLine({ box: 'bench', seq: i, ms: end + 5 * i, angle: 10, lifts: [0, null] }),
      ),
    );
    expect(round).toMatchObject({ origin: 0, tally: { good: 200 } });
    expect(conditionOf(round, round.at)).toBe('live');
    const anew = hear(
      round,
      formatLine({ box: 'bench', seq: 0, ms: 100, angle: 10, lifts: [0, null] }),
      round.at + 3_000,
    );
    expect(conditionOf(anew, anew.at)).toBe('live');
  });
  test('one sample 180° away is passed over; an encoder that stays there has lost its origin', () => {
    const once = formatLine({ box: 'bench', seq: 41, ms: 205, angle: 190, lifts: [1.27, null] });
    const back = formatLine({ box: 'bench', seq: 42, ms: 210, angle: 10, lifts: [1.27, null] });
    const glitch = listen([...lines, once, back]);
    expect(glitch).toMatchObject({ origin: 0, tally: { astray: 1, missing: 0 } });
    expect(steadyOf(glitch)?.angle).toBe(10);
    const stays = [41, 42, 43].map((seq) =>
      formatLine({ box: 'bench', seq, ms: 5 * seq, angle: 190, lifts: [1.27, null] }),
    );
    const jumped = listen([...lines, ...stays]);
    expect(jumped).toMatchObject({ origin: 1, lostBecause: 'jumped' });
    expect(steadyOf(jumped)?.angle).toBe(190);
  });
  test('a box that begins anew has lost its origin; a line said twice or late changes nothing', () => {
    const anew = formatLine({ box: 'bench', seq: 1, ms: 3, angle: 0, lifts: [0, null] });
    expect(listen([...lines.map((line) => line), ...lines.slice(5, 20)])).toMatchObject({
      origin: 0,
      tally: { good: 40 },
    });
    const long = hear(SILENT, formatLine({ box: 'bench', seq: 90_000, ms: 900_000, angle: 55, lifts: [1, null] }), 0);
    expect(hear(long, anew, 10)).toMatchObject({ origin: 1, lostBecause: 'restarted', last: { angle: 0 } });
  });
  test('two boxes on one line: the second is never mixed in, and is told', () => {
    const other = makeBenchBox('other', PERFECT_BOX, makeRandom(2));
    const both = lines.flatMap((line, i) => [line, other(5 * i, 200, [5, null])]);
    const heard = listen(both, 2.5);
    expect(conditionOf(heard, heard.at)).toBe('two-boxes');
    expect(steadyOf(heard)).toMatchObject({ angle: 10 });
    expect(
      conditionOf(
        listen(
          lines.map((line) => line),
          100,
          heard,
        ),
        heard.at + 4000,
      ),
    ).not.toBe('two-boxes');
  });
  test('a minute at 1,000 lines a second, one in a hundred damaged: no wrong value, and no more memory', () => {
    const random = makeRandom(77);
    const noisy = makeBenchBox('bench', { ...USUAL_BOX, angleNoise: 0, liftNoise: 0 }, random);
    let heard = SILENT;
    let wrong = 0;
    for (let ms = 0; ms < 60_000; ms += 1) {
      const angle = ms * 0.012;
      const line = noisy(ms, angle, [liftAt(angle), null]);
      if (line === null) continue;
      const before = heard.tally.good;
      heard = hear(heard, line, ms);
      if (heard.tally.good === before) continue;
      if (
        Math.abs((heard.last?.angle ?? NaN) - angle) > 0.051 ||
        Math.abs((heard.last?.lifts[0] ?? NaN) - liftAt(angle)) > 0.0051
      )
        wrong += 1;
    }
    expect(wrong).toBe(0);
    expect(heard.origin).toBe(0);
    expect(heard.recent.length).toBeLessThanOrEqual(64);
    expect(heard.tally.damaged / 60_000).toBeGreaterThan(0.008);
    expect(heard.tally.good + heard.tally.missing).toBeGreaterThan(59_900);
    expect(heard.tally.good + heard.tally.missing).toBeLessThanOrEqual(60_000);
  });
});

describe('a turn recorded by hand', () => {
  /** There, back a good way with the drive's slack in it, and on: as hands do. */
  const turnWith = (slack: number) => {
    const recorder = recordTurn();
    const random = makeRandom(5);
    let lag = 0;
    let crank = -80;
    const go = (to: number): void => {
      const step = to > crank ? 0.07 : -0.07;
      for (; (to - crank) * step > 0; crank += step) {
        lag = Math.min(slack, Math.max(0, lag - step));
        recorder.add(crank + random.normal(0.02), liftAt(crank + lag) + random.normal(0.002));
      }
    };
    go(70);
    go(55);
    go(150);
    go(149.9);
    go(300);
    return recorder.result();
  };
  test('its curve is the lobe, whatever slack was turned through on the way', () => {
    const { points, reversals, sweep, widest, samples } = turnWith(4);
    expect(reversals).toBe(1);
    expect(sweep).toBeCloseTo(380, 0);
    expect(widest).toBeLessThan(1);
    expect(points.length).toBeLessThanOrEqual(762);
    expect(samples).toBeGreaterThan(4_000);
    const trace = readTrace(
      points.map(([angle, lift]) => ({ angle, lift })),
      { liftSd: 0.004, angleSd: 0.05, closes: 0.03 },
    );
    expect(trace.ok).toBe(true);
    for (const [angle, lift] of points) expect(Math.abs(lift - liftAt(angle))).toBeLessThan(0.02);
    const flanks = flanksAt(LOBE, 1.27);
    const near = (angle: number): number =>
      points.reduce((best, [at, lift]) => (Math.abs(at - angle) < Math.abs(best[0] - angle) ? [at, lift] : best), [
        1e9, 0,
      ] as [number, number])[1];
    expect(near(flanks?.opening ?? 0)).toBeCloseTo(1.27, 1);
  });
  test('nothing it holds grows with the samples', () => {
    const recorder = recordTurn();
    for (let i = 0; i < 200_000; i += 1) recorder.add(i * 0.02, 1);
    expect(recorder.result().points.length).toBe(1_500);
  });
});

test('a sync reads the count as the wheel, either way round', () => {
  const sync = syncAt(100, 20, -1, 0);
  expect(ringAt(sync, 100)).toBe(20);
  expect(ringAt(sync, 90)).toBe(30);
  expect(syncError(sync, 90, 391)).toBeCloseTo(-1, 9);
});
