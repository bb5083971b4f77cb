import { lobeAt } from '../cam/lobe';
import { pistonDrop } from '../crank/slider-crank';
import { sweepGap } from './sweep';
import { type ValveSetting, carryGap, roomToMove } from './valve-to-piston';

const CRANK = { stroke: 88, rod: 145, pinOffset: 0 };
const INTAKE: ValveSetting = {
  valve: 'intake',
  crank: CRANK,
  angle: 0,
  pocket: 'parallel',
  lobe: { peak: 8, nose: 108, half: 145, power: 3, lean: 0 },
  ratio: 1.5,
  lash: 0.3,
};
const EXHAUST: ValveSetting = { ...INTAKE, valve: 'exhaust', lobe: { ...INTAKE.lobe, nose: -112 } };
const RAD = Math.PI / 180;

/** Written out anew from J. B. Heywood, Internal Combustion Engine Fundamentals, eq. 2.5: s = a·cosθ + √(l² − a²·sin²θ). */
const heywoodDrop = (crank: number): number => {
  const a = CRANK.stroke / 2;
  const s = a * Math.cos(crank * RAD) + Math.sqrt(CRANK.rod ** 2 - (a * Math.sin(crank * RAD)) ** 2);
  return a + CRANK.rod - s;
};
const lift = ({ lobe, ratio, lash }: ValveSetting, crank: number, ahead: number): number =>
  Math.max(0, lobeAt({ ...lobe, nose: lobe.nose - ahead }, crank).lift * ratio - lash);

test('the piston at the closing of the intake stands where the text has it', () => {
  for (const closes of [195, 218, 240, 262]) expect(pistonDrop(CRANK, closes)).toBeCloseTo(heywoodDrop(closes), 9);
});

describe('one measured gap, carried', () => {
  const measured = [{ at: 10, gap: 3, camAhead: 0 }];

  test('an upright valve: what the piston has gone down, less what the valve has opened', () => {
    const gap = carryGap(INTAKE, measured);
    expect(gap.at(10, 0)).toBeCloseTo(3, 12);
    for (const crank of [-20, 0, 5, 25])
      for (const ahead of [-4, 0, 6])
        expect(gap.at(crank, ahead)).toBeCloseTo(
          3 + heywoodDrop(crank) - heywoodDrop(10) - (lift(INTAKE, crank, ahead) - lift(INTAKE, 10, 0)),
          9,
        );
  });

  test('a leaning valve: the piston’s way counts by its cosine in a pocket, by one over it against a flat crown; unknown takes less', () => {
    const at = (pocket: ValveSetting['pocket'], crank: number): number =>
      carryGap({ ...INTAKE, angle: 22, pocket }, measured).at(crank, 0);
    const way = heywoodDrop(30) - heywoodDrop(10);
    const opened = lift(INTAKE, 30, 0) - lift(INTAKE, 10, 0);
    expect(at('parallel', 30)).toBeCloseTo(3 + way * Math.cos(22 * RAD) - opened, 9);
    expect(at('flat', 30)).toBeCloseTo(3 + way / Math.cos(22 * RAD) - opened, 9);
    for (const crank of [-30, 0, 30])
      expect(at('unknown', crank)).toBeCloseTo(Math.min(at('parallel', crank), at('flat', crank)), 12);
  });

  test('several gaps that disagree: the least counts everywhere', () => {
    const two = carryGap(INTAKE, [...measured, { at: 0, gap: 1, camAhead: 0 }]);
    const each = [carryGap(INTAKE, measured), carryGap(INTAKE, [{ at: 0, gap: 1, camAhead: 0 }])];
    for (const crank of [-15, 0, 15])
      expect(two.at(crank, 0)).toBeCloseTo(Math.min(...each.map((one) => one.at(crank, 0))), 12);
  });

  test('a gap taken while the cam stood elsewhere is that gap there', () => {
    const then = carryGap(INTAKE, [{ at: 10, gap: 3, camAhead: 4 }]);
    expect(then.at(10, 4)).toBeCloseTo(3, 12);
    expect(then.at(10, 0)).toBeGreaterThan(3);
  });
});

describe('the tightest place, and the room', () => {
  const intake = carryGap(INTAKE, [{ at: 10, gap: 3, camAhead: 0 }]);
  const exhaust = carryGap(EXHAUST, [{ at: -10, gap: 3.5, camAhead: 0 }]);

  test('it is the least of all places', () => {
    for (const gap of [intake, exhaust])
      for (const moved of [-8, 0, 8]) {
        const { at, gap: least } = gap.tightest(moved);
        for (let crank = -60; crank <= 60; crank += 0.25)
          expect(gap.at(crank, moved)).toBeGreaterThanOrEqual(least - 1e-4);
        expect(Math.abs(at)).toBeLessThan(30);
      }
    // Common practice, no source: the exhaust before TDC, the intake after.
    expect(intake.tightest(0).at).toBeGreaterThan(0);
    expect(exhaust.tightest(0).at).toBeLessThan(0);
  });

  test('advancing eats the intake’s, retarding the exhaust’s; at the edge of the room it is just the minimum', () => {
    const [of, out] = [roomToMove(intake, 2), roomToMove(exhaust, 2.5)];
    if (!of || !out) throw new Error('there is room');
    expect(of.from).toBe(-20);
    expect(intake.tightest(of.to).gap).toBeCloseTo(2, 1);
    expect(out.to).toBe(20);
    expect(exhaust.tightest(out.from).gap).toBeCloseTo(2.5, 1);
  });

  test('too tight as it stands: the room begins where a move has cured it, or there is none', () => {
    const minimum = intake.tightest(0).gap + 0.5;
    const room = roomToMove(intake, minimum);
    expect(room?.to).toBeLessThan(0);
    expect(intake.tightest(room?.to ?? 0).gap).toBeGreaterThanOrEqual(minimum);
    expect(roomToMove(intake, 30)).toBeNull();
  });

  test('the sweep shows the same figures', () => {
    const sweep = sweepGap(INTAKE, [{ at: 10, gap: 3, camAhead: 0 }]);
    expect(sweep.overCam).toHaveLength(81);
    expect(sweep.overCam.find(({ moved }) => moved === 4)?.gap).toBeCloseTo(intake.tightest(4).gap, 9);
    expect(sweep.overCrank.find(({ at }) => at === -5)?.gap).toBeCloseTo(intake.at(-5, 0), 12);
  });
});
