import fc from 'fast-check';
import { pistonDrop } from '../crank/slider-crank';
import type { Lobe } from './lobe';
import { effectsOf, whatIf } from './what-if';

const intake: Lobe = { peak: 8.4, nose: 107, half: 150, power: 3, lean: 0 };
const exhaust: Lobe = { peak: 8.2, nose: -111, half: 152, power: 3, lean: 0 };
const BOTH = { intake, exhaust };
const crank = { stroke: 88.392, rod: 144.78 };
const NOTHING = { crank: null, bore: null, ratio: null, chamber: null };
const still = { intake: 0, exhaust: 0 };
const of = (by: { intake: number; exhaust: number }, cylinder = NOTHING as Parameters<typeof whatIf>[3]) =>
  whatIf(BOTH, by, 1.27, cylinder);

test('advance a: IVO+a, IVC−a, EVO+a, EVC−a, ICL−a, ECL+a; LSA and overlap of a single cam stay (definitions)', () =>
  fc.assert(
    fc.property(fc.double({ min: -12, max: 12, noNaN: true }), (a) => {
      const [before, after] = [of(still), of({ intake: a, exhaust: a })];
      const [i, e] = [0, 1].map((at) => [before.lobes[at], after.lobes[at]] as const);
      for (const [pair, sign] of [
        [i, 1],
        [e, -1],
      ] as const) {
        expect((pair?.[1]?.opens ?? 0) - (pair?.[0]?.opens ?? 0)).toBeCloseTo(a, 9);
        expect((pair?.[1]?.closes ?? 0) - (pair?.[0]?.closes ?? 0)).toBeCloseTo(-a, 9);
        expect((pair?.[1]?.centreline ?? 0) - (pair?.[0]?.centreline ?? 0)).toBeCloseTo(-sign * a, 9);
      }
      expect(after.separation).toBeCloseTo(before.separation ?? 0, 9);
      expect(after.overlap).toBeCloseTo(before.overlap ?? 0, 9);
    }),
  ));

test('of two cams, moving one changes LSA by half and overlap by all of it', () => {
  const [before, after] = [of(still), of({ intake: 4, exhaust: 0 })];
  expect((after.separation ?? 0) - (before.separation ?? 0)).toBeCloseTo(-2, 9);
  expect((after.overlap ?? 0) - (before.overlap ?? 0)).toBeCloseTo(4, 9);
  // An advanced intake has risen further at TDC, and an exhaust less.
  expect(after.lobes[0]?.liftAtTdc).toBeGreaterThan(before.lobes[0]?.liftAtTdc ?? 0);
  const exhaustOnly = of({ intake: 0, exhaust: 4 });
  expect(exhaustOnly.lobes[1]?.liftAtTdc).toBeLessThan(before.lobes[1]?.liftAtTdc ?? 0);
});

// Heywood, Internal Combustion Engine Fundamentals, ch. 2: V = Vc + (π·B²/4)·y.
test('what is trapped, from the slider-crank at the seat: ratio and chamber give the same', () => {
  const bore = 101.6;
  const swept = (Math.PI * bore ** 2 * crank.stroke) / 4 / 1000;
  const byRatio = of(still, { crank, bore, ratio: 10, chamber: null }).trapped;
  const byChamber = of(still, { crank, bore, ratio: null, chamber: swept / 9 }).trapped;
  const closes = 107 + 150 * Math.sqrt(1 - (0.1524 / 8.4) ** (1 / 3));
  const y = pistonDrop(crank, closes);
  expect(byRatio?.drop).toBeCloseTo(y, 9);
  expect(byRatio?.volume).toBeCloseTo((Math.PI * bore ** 2 * y) / 4 / 1000, 9);
  expect(byRatio?.ratio).toBeCloseTo((swept / 9 + (byRatio?.volume ?? 0)) / (swept / 9), 9);
  expect(byChamber?.ratio).toBeCloseTo(byRatio?.ratio ?? 0, 9);
  // Closing later traps less.
  const later = of({ intake: -6, exhaust: -6 }, { crank, bore, ratio: 10, chamber: null }).trapped;
  expect(later?.ratio).toBeLessThan(byRatio?.ratio ?? 0);
});

test('what is not known is left out, not guessed', () => {
  expect(of(still).trapped).toBeNull();
  expect(of(still, { ...NOTHING, crank }).trapped).toMatchObject({ volume: null, ratio: null });
  expect(whatIf({ intake, exhaust: null }, still, 1.27, NOTHING)).toMatchObject({ separation: null, overlap: null });
  expect(whatIf({ intake: null, exhaust: null }, still, 1.27, NOTHING).lobes).toEqual([]);
});

test('effects are told only where there is a move, each way its own', () => {
  expect(effectsOf(0, 0)).toEqual([]);
  expect(effectsOf(4, 0).join()).toMatch(/down the range.*intake valve nearer/);
  expect(effectsOf(-4, 1).join()).toMatch(/up the range.*exhaust valve nearer.*wider LSA/);
});
