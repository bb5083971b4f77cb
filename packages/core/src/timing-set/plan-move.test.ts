import { makeRandom } from '../statistics/random';
import { type Hardware, type Setting, reachOf, straightUp, tableOf } from './hardware';
import { learnResponse } from './learned-response';
import { type CamToMove, planMove } from './plan-move';
import type { FittedPart } from './fitted-part';

/** Every place of every part is tried, one inside the other. What ranks before what: common practice, no source. */

const ALIKE = 0.25;
const part = (name: string, hardware: Hardware, turns: string[], at: Setting = straightUp(hardware)): FittedPart => ({
  part: name,
  hardware,
  at,
  turns,
  response: learnResponse(hardware, []),
});
const cam = (name: string, delta: number, room: CamToMove['room'] = null): CamToMove => ({ cam: name, delta, room });

interface Leaf {
  readonly max: number;
  readonly sum: number;
  readonly work: number;
  readonly breaks: boolean;
}

/** What each place of a part gives, and what putting it there costs. */
function placesOf({ hardware, at, response }: FittedPart): { gives: number; work: number }[] {
  const reach = reachOf(hardware);
  const { work, wheelOff } = tableOf(hardware);
  const costs = (work === 'adjust' ? 1 : 4) + (wheelOff ? 3 : 0);
  if (reach.kind === 'marks')
    return reach.positions.map(({ mark }) => {
      const { gives } = response.expect(at, { mark });
      return { gives, work: 'mark' in at && at.mark === mark ? 0 : costs };
    });
  const stands = 'at' in at ? at.at : 0;
  const tenths = Math.round(10 * (reach.to - reach.from)) + 1;
  const places = Array.from({ length: tenths }, (_, i) => Math.ceil(10 * reach.from - 1e-9) / 10 + i / 10)
    .filter((place) => place <= reach.to + 1e-9 && Math.abs(place - stands) > 1e-9)
    .map((place) => ({ gives: (place - stands) * reach.perUnit, work: costs }));
  return [{ gives: 0, work: 0 }, ...places];
}

function everyLeaf(parts: readonly FittedPart[], cams: readonly CamToMove[], visit: (leaf: Leaf) => void): void {
  const all = parts.map((each) => ({ places: placesOf(each), turns: cams.map((c) => each.turns.includes(c.cam)) }));
  const by = cams.map(() => 0);
  const go = (at: number, work: number): void => {
    const next = all[at];
    if (!next) {
      let [max, sum, breaks] = [0, 0, false];
      cams.forEach(({ delta, room }, i) => {
        const moved = by[i] ?? 0;
        const left = Math.abs(delta + moved);
        max = Math.max(max, left);
        sum += left;
        breaks ||= room !== null && Math.abs(moved) > 1e-6 && (moved > room.to + 1e-6 || moved < room.from - 1e-6);
      });
      visit({ max, sum, work, breaks });
      return;
    }
    for (const { gives, work: costs } of next.places) {
      next.turns.forEach((turns, i) => {
        if (turns) by[i] = (by[i] ?? 0) + gives;
      });
      go(at + 1, work + costs);
      next.turns.forEach((turns, i) => {
        if (turns) by[i] = (by[i] ?? 0) - gives;
      });
    }
  };
  go(0, 0);
}

const steps = (more: number): number => Math.max(0, Math.floor(more / ALIKE + 1e-6));

/** The best that there is: how little can be left, and with how little work what is as good. */
function bestOf(parts: readonly FittedPart[], cams: readonly CamToMove[]) {
  let [max, sum, work] = [Infinity, Infinity, Infinity];
  everyLeaf(parts, cams, (leaf) => {
    if (!leaf.breaks) max = Math.min(max, leaf.max);
  });
  everyLeaf(parts, cams, (leaf) => {
    if (!leaf.breaks && steps(leaf.max - max) === 0) sum = Math.min(sum, leaf.sum);
  });
  everyLeaf(parts, cams, (leaf) => {
    if (!leaf.breaks && steps(leaf.max - max) === 0 && steps(leaf.sum - sum) === 0) work = Math.min(work, leaf.work);
  });
  return { max, sum, work };
}

const costOf = (parts: readonly FittedPart[], moved: readonly { part: string }[]): number =>
  moved.reduce((all, { part: name }) => {
    const { work, wheelOff } = tableOf((parts.find((each) => each.part === name) as FittedPart).hardware);
    return all + (work === 'adjust' ? 1 : 4) + (wheelOff ? 3 : 0);
  }, 0);

/** Some drive: what turns one cam, what turns two, four cams of two banks; rooms now and then. */
function someDrive(seed: number): { parts: FittedPart[]; cams: CamToMove[] } {
  const random = makeRandom(seed);
  const oneOf = <T>(all: readonly T[]): T => all[Math.floor(random.even() * all.length)] as T;
  const some: readonly (() => Hardware)[] = [
    () => ({
      kind: 'keyways',
      stamped: 'crank',
      marks: oneOf([
        [-4, 0, 4],
        [-8, -4, 0, 4, 8],
        [0, 2, 4],
      ]),
    }),
    () => ({
      kind: 'bushings',
      stamped: 'cam',
      marks: oneOf([
        [-2, -1, 0, 1, 2],
        [-1, 0, 1],
      ]),
    }),
    () => ({ kind: 'offset-dowel', radius: 20, offsets: oneOf([[0.5], [0.5, 1]]) }),
    () => ({ kind: 'tooth-jump', teeth: oneOf([40, 48]) }),
    () => ({ kind: 'hole-sets', teeth: 40, sets: 6 }),
  ];
  const range = (): Hardware =>
    random.even() < 0.3
      ? { kind: 'phaser', stamped: 'crank', sense: oneOf(['grows-early', 'grows-late']), from: -1.5, to: 2 }
      : { kind: 'slotted-pulley', stamped: oneOf(['crank', 'cam']), range: oneOf([1, 1.525, 2]), scale: true };
  const off = (): number => Math.round(100 * random.within(7)) / 100;
  const room = (): CamToMove['room'] =>
    random.even() < 0.3 ? { from: -8 * random.even(), to: Math.round(1e3 * 6 * random.even()) / 1e3 } : null;
  const own = (): Hardware => (random.even() < 0.5 ? range() : oneOf(some)());
  const drive = random.even();
  if (drive < 0.5)
    return {
      parts: [part('a', oneOf(some)(), ['single']), ...(random.even() < 0.7 ? [part('b', own(), ['single'])] : [])],
      cams: [cam('single', off(), room())],
    };
  if (drive < 0.85)
    return {
      parts: [
        part('both', random.even() < 0.6 ? range() : oneOf(some)(), ['intake', 'exhaust']),
        part('in', own(), ['intake']),
        ...(random.even() < 0.5 ? [part('out', oneOf(some)(), ['exhaust'])] : []),
      ],
      cams: [cam('intake', off(), room()), cam('exhaust', off(), room())],
    };
  const banks = ['in 1', 'out 1', 'in 2', 'out 2'];
  return {
    parts: [
      part('crank', { kind: 'keyways', stamped: 'crank', marks: [-4, 0, 4] }, banks),
      part('pulley 1', { kind: 'slotted-pulley', stamped: 'crank', range: 1, scale: true }, banks.slice(0, 2)),
      part('pulley 2', { kind: 'slotted-pulley', stamped: 'crank', range: 1, scale: true }, banks.slice(2)),
      part('dowel', { kind: 'offset-dowel', radius: 20, offsets: [0.5] }, ['in 1']),
    ],
    cams: banks.map((name) => cam(name, off() / 2)),
  };
}

test('1,000 drives: never more left than there has to be, never more work for it, never beyond a room or a range', () => {
  const wrong: unknown[] = [];
  for (let seed = 1; seed <= 1000; seed += 1) {
    const { parts, cams } = someDrive(seed);
    const best = bestOf(parts, cams);
    const stays = Math.max(...cams.map(({ delta }) => Math.abs(delta)));
    const plans = planMove(parts, cams);
    const [first] = plans.filter(({ breaks }) => !breaks);
    const left = first?.remaining ?? stays;
    const sum = (first?.cams ?? cams.map(({ delta }) => ({ leaves: delta }))).reduce(
      (all, { leaves }) => all + Math.abs(leaves),
      0,
    );
    const work = costOf(parts, first?.parts ?? []);
    if (steps(left - best.max) > 0 || steps(sum - best.sum) > 0 || work !== best.work)
      wrong.push({ seed, left, sum, work, best });
    if (new Set(plans.map(({ parts: put }) => JSON.stringify(put))).size < plans.length)
      wrong.push({ seed, twice: plans });
    for (const plan of plans) {
      // Staying is a plan: nothing is offered that leaves more.
      if (!plan.breaks && plan.remaining > stays + 1e-6) wrong.push({ seed, leavesMore: plan.remaining, stays });
      for (const { part: name, to } of plan.parts) {
        const reach = reachOf((parts.find((each) => each.part === name) as FittedPart).hardware);
        if (reach.kind === 'range' && 'at' in to && (to.at > reach.to + 1e-9 || to.at < reach.from - 1e-9))
          wrong.push({ seed, outside: to });
      }
    }
  }
  expect(wrong).toEqual([]);
});

test.each([
  [
    '4.0° late with a 48-tooth gear: a tooth would leave it 11° early',
    [part('t', { kind: 'tooth-jump', teeth: 48 }, ['single'])],
    -4,
  ],
  [
    '1.75° late with keyways −4, 0, 4: +4 would leave more',
    [part('k', { kind: 'keyways', stamped: 'crank', marks: [-4, 0, 4] }, ['single'])],
    -1.75,
  ],
] as const)('%s: staying is a plan', (_what, parts, delta) => {
  expect(planMove(parts, [cam('single', delta)])).toEqual([]);
});

test('a shared pulley and a dowel of the intake: each cam brought home exactly', () => {
  const [best] = planMove(
    [
      part('pulley', { kind: 'slotted-pulley', stamped: 'crank', range: 6, scale: true }, ['intake', 'exhaust']),
      // 1 mm at 28.65 mm turns the cam by 2°, the crank by 4 (asin 1/28.654 = 2.0°).
      part('dowel', { kind: 'offset-dowel', radius: 57.3, offsets: [1] }, ['intake']),
    ],
    [cam('intake', -3), cam('exhaust', -1)],
  );
  expect(best?.remaining).toBeLessThan(0.01);
  expect(best?.parts.map(({ to }) => to)).toEqual(expect.arrayContaining([{ at: 1 }, { mark: '+1 mm' }]));
});

test('a scale is set on the safe side of a room, and never out of its range', () => {
  const pulley = part('p', { kind: 'slotted-pulley', stamped: 'cam', range: 6, scale: true }, ['single']);
  const [best] = planMove([pulley], [cam('single', -7, { from: -9, to: 5.391 })]);
  expect(best).toMatchObject({ breaks: false, parts: [{ to: { at: 2.6 } }] });
  expect(best?.cams[0]?.by).toBeCloseTo(5.2, 9);
  const short = part('p', { kind: 'slotted-pulley', stamped: 'crank', range: 3.05, scale: true }, ['single']);
  expect(planMove([short], [cam('single', -5)])[0]?.parts[0]?.to).toEqual({ at: 3 });
});

test('no second part for hundredths of a degree', () => {
  const sets = part('sets', { kind: 'hole-sets', teeth: 40, sets: 6 }, ['single']);
  const taper = part('taper', { kind: 'taper' }, ['single']);
  const [best] = planMove(
    [sets, part('pulley', { kind: 'slotted-pulley', stamped: 'cam', range: 0.1, scale: true }, ['single'])],
    [cam('single', -3.06)],
  );
  expect(best?.parts.map(({ part: name }) => name)).toEqual(['sets']);
  const [only] = planMove([sets, taper], [cam('single', -3.01)]);
  expect(only?.parts.map(({ part: name }) => name)).toEqual(['taper']);
});
