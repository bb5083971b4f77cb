import { lobePlaces, nextLobe } from '../measure/lobe-round';
import { makeRandom } from '../statistics/random';
import { book } from '../testing/book';

type Book = ReturnType<typeof book>;

const lift = (at: Book, cylinder: number, valve: 'intake' | 'exhaust', mm: number, more = {}): void => {
  at.round('identity', valve, [{ shows: { kind: 'peak-lift', lift: Math.round(mm * 1e4) / 1e4 } }], {
    cylinder,
    ...more,
  });
};
/** Lifts of the intake lobes of all six, mm. */
const lifts = (at: Book, all: readonly number[], more = {}): void => {
  all.forEach((mm, place) => lift(at, place + 1, 'intake', mm, more));
};
const tableOf = (at: Book) => at.report().trials.at(-1)?.everyLobe ?? [];

describe('every lobe', () => {
  it('names the lobe that lifts less than the others, and by how much', () => {
    const at = book();
    lifts(at, [8.38, 8.37, 8.39, 8.38, 8.07, 8.38]);
    const [table] = tableOf(at);
    expect(table?.rows.map((row) => row.lift?.state)).toEqual(['same', 'same', 'same', 'same', 'differs', 'same']);
    expect(table?.words).toEqual([
      expect.stringMatching(/intake lobe of cylinder 5 lifts 0\.012 in less than the others \(±0\.00\d in\): worn/),
    ]);
    expect(at.report().sign.open.join(' ')).toMatch(/cylinder 5/);
    expect(at.report().sheet.flatMap(({ rows }) => rows.map(({ label }) => label))).toContain('Every intake lobe');
  });
  it('that differs knowingly is no open point, until another differs, or it differs more', () => {
    const at = book();
    lifts(at, [8.38, 8.37, 8.39, 8.38, 8.07, 8.38]);
    const [table] = tableOf(at);
    const apart = table?.rows[4]?.lift?.apart ?? 0;
    at.write('verdict.accepted', {
      replaces: null,
      trial: at.trial,
      of: {
        what: 'lobes',
        valve: 'intake',
        at: 'lobe',
        uneven: null,
        differ: [{ cylinder: 5, figure: 'lift', apart }],
      },
      said: table?.words.join(' ') ?? '',
      reason: 'a club engine, one season more',
    });
    expect(at.report().sign.open.join(' ')).not.toMatch(/cylinder 5/);
    expect(at.report().accepted).toMatchObject([{ view: 'every-lobe intake lobe', stands: true }]);
    lift(at, 5, 'intake', 8.07);
    expect(at.report().accepted).toMatchObject([{ stands: true }]);
    // Read twice more at another height: it is not what was accepted.
    for (const mm of [7.7, 7.7]) lift(at, 5, 'intake', mm);
    expect(at.report().accepted).toMatchObject([{ stands: false }]);
    expect(at.report().sign.open.join(' ')).toMatch(/cylinder 5/);
  });
  it('that are uneven knowingly are asked about again when they have become more so', () => {
    const at = book();
    lifts(at, [8.2, 8.5, 8.05, 8.65, 8.3, 8.45]);
    const { uneven = null, rows = [] } = tableOf(at)[0] ?? {};
    const differ = rows.flatMap(({ cylinder, lift: found }) =>
      found?.state === 'differs' ? [{ cylinder, figure: 'lift' as const, apart: found.apart }] : [],
    );
    expect(uneven).toBeGreaterThan(0.5);
    at.write('verdict.accepted', {
      replaces: null,
      trial: at.trial,
      of: { what: 'lobes', valve: 'intake', at: 'lobe', uneven, differ },
      said: 'The intake lifts differ among themselves.',
      reason: 'worn alike, to be replaced in winter',
    });
    expect(at.report().accepted).toMatchObject([{ stands: true }]);
    for (const mm of [7.2, 7.2, 7.2]) lift(at, 3, 'intake', mm);
    expect(at.report().accepted).toMatchObject([{ stands: false }]);
  });
  it('does not take the lobes of other cylinders for where the cam sits, nor for its lift', () => {
    const at = book();
    at.card();
    const setting = at.proved();
    at.pair(setting, 68, 146);
    lift(at, 1, 'intake', 8.38);
    const before = at.report();
    lift(at, 5, 'intake', 7.9);
    at.round(
      'centreline',
      'intake',
      [
        { shows: { kind: 'below-peak', flank: 'opening', drop: 1.27 }, at: 120 + 60 },
        { shows: { kind: 'below-peak', flank: 'closing', drop: 1.27 }, at: 120 + 140 },
      ],
      { setting, cylinder: 5 },
    );
    const after = at.report();
    expect(after.verdict).toEqual(before.verdict);
    expect(after.trials[0]?.views).toEqual(before.trials[0]?.views);
  });
  it('counts the centreline of another cylinder from that cylinder’s own TDC', () => {
    const at = book();
    const setting = at.proved();
    // Cylinder 5 fires second of six: 120° after the first.
    for (const [cylinder, after] of [
      [1, 0],
      [5, 120],
      [3, 240],
      [6, 360],
      [2, 480],
      [4, 600],
    ] as const) {
      const late = cylinder === 2 ? 4 : 0;
      at.round(
        'centreline',
        'intake',
        [
          { shows: { kind: 'below-peak', flank: 'opening', drop: 1.27 }, at: after + 68 + late },
          { shows: { kind: 'below-peak', flank: 'closing', drop: 1.27 }, at: after + 146 + late },
        ],
        { setting, cylinder },
      );
    }
    const [table] = tableOf(at);
    expect(table?.rows.map(({ centreline }) => Math.round(centreline?.value ?? 0))).toEqual([
      107, 111, 107, 107, 107, 107,
    ]);
    expect(table?.words).toEqual([
      expect.stringMatching(/cylinder 2 stands 4\.0° later, retarded, against the others/),
    ]);
  });
  it('says of two that they differ, and not which of them is wrong', () => {
    const at = book();
    lift(at, 1, 'exhaust', 8.38);
    lift(at, 4, 'exhaust', 8.0);
    const [table] = tableOf(at);
    expect(table?.rows.map((row) => row.lift?.state)).toEqual(['alone', 'alone']);
    expect(table?.words.join(' ')).toMatch(/differ among themselves by up to 0\.015 in/);
  });
  it('calls a cam of which half is worn uneven, instead of accusing one', () => {
    const at = book();
    lifts(at, [8.38, 8.1, 8.38, 8.11, 8.09, 8.38]);
    expect(tableOf(at)[0]?.uneven).toBeCloseTo(0.29, 2);
  });
  it('accuses hardly any sound lobe of a rough hand, and finds the worn one nearly always', () => {
    const random = makeRandom(1717);
    let [accused, found, asked] = [0, 0, 0];
    const cams = 200;
    for (let cam = 0; cam < cams; cam += 1) {
      // Not as the core believes it: the dial read to whole thousandths, the zero anywhere within two of them, the grinding even within half of one.
      const worn = 1 + Math.floor(random.even() * 6);
      const read = (by: number): number =>
        0.0254 * Math.round((8.38 + by + random.within(0.0127) + random.within(0.0508)) / 0.0254);
      const [sound, used] = [book(), book()];
      lifts(
        sound,
        [1, 2, 3, 4, 5, 6].map(() => read(0)),
      );
      lifts(
        used,
        [1, 2, 3, 4, 5, 6].map((cylinder) => read(cylinder === worn ? -0.254 : 0)),
      );
      if (tableOf(sound)[0]?.differs) accused += 1;
      const rows = tableOf(used)[0]?.rows ?? [];
      const named = rows.filter((row) => row.lift?.state === 'differs').map(({ cylinder }) => cylinder);
      if (named.length === 1 && named[0] === worn) found += 1;
      else if (rows.some((row) => row.cylinder === worn && row.lift?.state === 'perhaps')) asked += 1;
    }
    expect(accused / cams).toBeLessThanOrEqual(0.01);
    expect(found / cams).toBeGreaterThan(0.8);
    expect((found + asked) / cams).toBeGreaterThan(0.97);
  });
  it('compares all of them when the engine is measured again', () => {
    const at = book();
    lifts(at, [8.38, 8.37, 8.39, 8.38, 8.37, 8.38]);
    const trial = at.write('trial.begun', { after: at.trial, why: 'checked' });
    lifts(at, [8.38, 8.37, 8.39, 8.38, 8.37, 8.12], { trial });
    const said = at.report().wear.filter(({ what }) => what === 'lift');
    expect(said.map(({ cylinder }) => cylinder)).toEqual([null, 2, 3, 4, 5, 6]);
    expect(said.filter(({ changed }) => changed).map(({ words }) => words)).toEqual([
      expect.stringMatching(/intake lobe of cylinder 6 lifts 0\.010 in less than in trial 1/),
    ]);
  });
  it('reads every lobe once, each from its base circle, in fewer turns than cylinder by cylinder', () => {
    const lobes = lobePlaces({ order: [1, 8, 4, 3, 6, 5, 7, 2] }, { intake: 108, exhaust: 112 });
    const done = new Set<string>();
    const key = (lobe: (typeof lobes)[number]): string => `${lobe.cylinder} ${lobe.valve}`;
    let at: number | null = null;
    let turned = 0;
    for (let next = nextLobe(lobes, (lobe) => done.has(key(lobe)), at, 150); next;) {
      if (next.turn !== null) {
        expect(next.turn).toBeGreaterThanOrEqual(170);
        expect(((at ?? 0) + next.turn) % 720).toBeCloseTo(next.lobe.peak, 9);
      }
      turned += next.turn ?? 0;
      at = next.lobe.peak;
      done.add(key(next.lobe));
      next = nextLobe(lobes, (lobe) => done.has(key(lobe)), at, 150);
    }
    expect(done.size).toBe(16);
    // By cylinder, exhaust then intake: 220° and then the way to the next cylinder’s exhaust, 590°.
    expect(turned / 360).toBeLessThan(9);
  });
});
