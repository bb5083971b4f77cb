import fc from 'fast-check';
import { obey } from '../testing/hands';
import { type Hardware, type Setting, reachOf, tableOf } from './hardware';
import { type PartToSet, instruct } from './instruct';
import { learnResponse } from './learned-response';
import { planMove } from './plan-move';
import type { FittedPart } from './fitted-part';

/** Every instruction obeyed to the letter, from wherever the part stands: the cam ends where the plan says. Ways of turning: definition of the words. */

const KINDS: readonly Hardware[] = [
  { kind: 'keyways', stamped: 'crank', marks: [-8, -6, -4, -2, 0, 2, 4, 6, 8] },
  { kind: 'bushings', stamped: 'cam', marks: [-3, -2, -1, 0, 1, 2, 3] },
  { kind: 'offset-dowel', radius: 20, offsets: [0.5, 1] },
  { kind: 'offset-key', radius: 16, offsets: [0.5, 1, 1.5] },
  { kind: 'slotted-pulley', stamped: 'cam', range: 4, scale: true },
  { kind: 'eccentric', stamped: 'crank', range: 8, scale: true },
  { kind: 'hole-circle', gear: 18, hub: 20 },
  { kind: 'hole-sets', teeth: 40, sets: 6 },
  { kind: 'taper' },
  { kind: 'tooth-jump', teeth: 48 },
  { kind: 'phaser', stamped: 'crank', sense: 'grows-late', from: -10, to: 20 },
];
const OPENING = 64;
/** The wheel had been found this far off before it came off. */
const OFFSET = 2;
const read = (words: string): number => Number(words);

/** Some place of a part: any of its marks, or a tenth of its scale. */
function somePlace(hardware: Hardware, share: number): Setting {
  const reach = reachOf(hardware);
  if (reach.kind === 'range')
    return { at: Math.round(10 * (reach.from + share * (reach.to - reach.from) * 0.99)) / 10 };
  return { mark: reach.positions[Math.floor(share * reach.positions.length * 0.999)]?.mark ?? '' };
}

const place = fc.double({ min: 0, max: 1, noNaN: true });
const drive = fc.record({
  kinds: fc.uniqueArray(fc.constantFrom(...KINDS), { minLength: 1, maxLength: 2 }),
  shares: fc.tuple(place, place),
  delta: fc.double({ min: -14, max: 14, noNaN: true }),
  rotation: fc.constantFrom('clockwise' as const, 'counter-clockwise' as const),
  camTurns: fc.constantFrom('with-crank' as const, 'against-crank' as const),
});

test('from any mark, on any drive, with one part or two: the cam ends where the plan says, and nothing is used that is off', () => {
  const seen = new Set<string>();
  fc.assert(
    fc.property(drive, ({ kinds, shares, delta, rotation, camTurns }) => {
      const parts = kinds.map((hardware, at): FittedPart => ({
        part: String(at),
        hardware,
        at: somePlace(hardware, shares[at] ?? 0.5),
        turns: ['single'],
        response: learnResponse(hardware, []),
      }));
      for (const plan of planMove(parts, [{ cam: 'single', delta, room: null }])) {
        const by = plan.cams[0]?.by ?? 0;
        const crank = OPENING - by;
        const toSet = plan.parts.flatMap((planned): PartToSet[] => {
          const part = parts.find((each) => each.part === planned.part);
          const direct = { crank: String(crank + OFFSET), crankAnew: String(crank), shows: '1.27 mm', valve: 'intake' };
          return part ? [{ name: `part ${part.part}`, hardware: part.hardware, planned, cams: 'the cam', direct }] : [];
        });
        // As they are put in order for a build: what takes the front apart first.
        const order = [...toSet].sort(
          (a, b) =>
            Number(tableOf(b.hardware).work === 'front-apart') - Number(tableOf(a.hardware).work === 'front-apart'),
        );
        const steps = instruct(order, { drive: camTurns === 'against-crank' ? 'gear' : 'chain', rotation, camTurns });
        const standing = order.map(({ hardware, planned }) => ({ hardware, at: planned.from }));
        const turned = obey(steps, standing, { rotation, camTurns, opening: OPENING, offset: OFFSET, read });
        expect(turned).toBeCloseTo(by, 6);
        for (const { hardware } of order) seen.add(hardware.kind);
        // Each says which part and what must be seen, and nobody is sent on by nothing.
        for (const { text } of steps) expect(text).not.toMatch(/undefined|NaN|\b0 (holes?|teeth|tooth|hole sets?)\b/);
      }
    }),
    { numRuns: 1500, seed: 7 },
  );
  expect([...seen].sort()).toEqual(KINDS.map(({ kind }) => kind).sort());
});
