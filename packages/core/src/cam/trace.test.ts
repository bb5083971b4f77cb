import { FAMILIES, groundFlanks, groundLift, someGroundLobe } from '../judgement/ground-lobe';
import { makeRandom } from '../statistics/random';
import { readTrace } from './trace';

/**
 * Traces of lobes in closed form (3-4-5 and cycloidal motion, harmonic, and a polynomial: any text on cam design), none of which the spline knows anything of: on an
 * indicator that was not at 0 on the base circle, begun anywhere, with a slip of the pen in it.
 */
const HEIGHT = 1.27;
const RESOLUTION = 0.005;

describe.each([1, 2, 5])('points every %d°', (step) => {
  test('events and centre are where the lobe has them, or as unsure as is said; the zero that was off is taken off', () => {
    const wrong: unknown[] = [];
    for (let seed = 1; seed <= 120; seed += 1) {
      const random = makeRandom(1000 * step + seed);
      const lobe = someGroundLobe(random, FAMILIES[seed % FAMILIES.length] ?? 'harmonic', 108);
      const offset = Math.round(1000 * random.within(0.3)) / 1000;
      const start = Math.floor(720 * random.even());
      const points = Array.from({ length: 720 / step }, (_, i) => {
        const angle = (start + i * step) % 720;
        const lift = groundLift(lobe, angle) + offset;
        return { angle, lift: RESOLUTION * Math.round(lift / RESOLUTION) };
      });
      const slip = Math.floor(points.length * random.even());
      const slipped = seed % 3 === 0;
      if (slipped) points[slip] = { angle: points[slip]?.angle ?? 0, lift: (points[slip]?.lift ?? 0) + 0.9 };
      const read = readTrace(points, { liftSd: RESOLUTION / Math.sqrt(12), angleSd: 0, closes: 0.03 });
      if (!read.ok) {
        wrong.push({ seed, problem: read.problem.message });
        continue;
      }
      const { curve } = read;
      const truth = groundFlanks(lobe, HEIGHT);
      const drop = groundFlanks(lobe, lobe.peak - HEIGHT);
      const flanks = curve.flanks(HEIGHT);
      const centre = curve.centre(curve.peak - HEIGHT);
      const turns = 720 * Math.round((curve.nose - lobe.nose) / 720);
      const off = (found: number | undefined, where: number): number => Math.abs((found ?? NaN) - turns - where);
      const allowed = 0.1;
      const within = (found: { angle: number; standard: number } | undefined, where: number): boolean =>
        off(found?.angle, where) <= Math.max(allowed, 2 * (found?.standard ?? 0));
      if (!within(flanks?.opening, truth.opening) || !within(flanks?.closing, truth.closing))
        wrong.push({
          seed,
          family: lobe.family,
          offset,
          opening: off(flanks?.opening.angle, truth.opening),
          closing: off(flanks?.closing.angle, truth.closing),
        });
      if (!within(centre ?? undefined, (drop.opening + drop.closing) / 2))
        wrong.push({ seed, centre: off(centre?.angle, (drop.opening + drop.closing) / 2) });
      if (Math.abs(curve.zeroOff - offset) > 0.006) wrong.push({ seed, offset, zeroOff: curve.zeroOff });
      if (slipped && !curve.strays.some(({ index }) => index === slip))
        wrong.push({ seed, slip, strays: curve.strays });
      if (!slipped && curve.strays.length > 0) wrong.push({ seed, strays: curve.strays });
    }
    expect(wrong).toEqual([]);
  });
});
