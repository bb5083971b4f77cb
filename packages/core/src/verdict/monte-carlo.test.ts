import { measureSomeCam } from '../simulation/measured-cam';
import { makeRandom } from '../statistics/random';
import { expandedOf } from '../statistics/coverage';
import { type DrawnPart, drawnOf } from './drawn';
import { type DrawingCase, drawErrors, drawingCase } from './monte-carlo';
import { placeOf } from './place-cam';
import { weigh } from './weigh';

function drawn(asked: DrawingCase, draws: number, seed: number): { part: DrawnPart; told: number } {
  const drawing = drawErrors(asked, draws, makeRandom(seed));
  let told = 0;
  for (let step = drawing.next(); ; step = drawing.next()) {
    if (step.done) return { part: step.value, told };
    told += 1;
  }
}

// JCGM 101:2008, clause 8: the law of propagation is confirmed where the ends of the drawn interval are its own.
test('drawing confirms the stated interval of engines of all kinds, through their real lobes', () => {
  const random = makeRandom(12);
  for (let i = 0; i < 12; i += 1) {
    const weighing = weigh(measureSomeCam(random, i % 2 ? { thorough: true } : {}).evidence);
    const placed = weighing && placeOf(weighing, 'intake');
    if (!placed) continue;
    const stated = expandedOf(placed.sources);
    const { mean, standard, low, high } = drawnOf([drawn(drawingCase(weighing, placed, stated), 60_000, i).part]);
    expect(mean / stated.standard).toBeCloseTo(0, 1);
    expect(standard / stated.standard).toBeCloseTo(1, 1);
    expect(high / stated.expanded).toBeCloseTo(1, 1);
    expect(-low / stated.expanded).toBeCloseTo(1, 1);
  }
});

// Closed forms: 95 % of a rectangular distribution lie within 0.95 of its half-width, of a normal one within 1.96.
test.each([
  ['rectangular', { halves: [1], normal: 0 }, 0.95],
  ['normal', { halves: [], normal: 1 }, 1.96],
])('one %s error', (_name, of, end) => {
  const asked: DrawingCase = { ...of, rounds: [], halfFigure: 0, standard: 1, expanded: 1 };
  const { part, told } = drawn(asked, 200_000, 4);
  // It tells how far it is, so that it can be watched and given up.
  expect(told).toBeGreaterThan(3);
  expect(drawnOf([part]).high).toBeCloseTo(end, 1);
});

test('parts that were drawn side by side make the result of all of them', () => {
  const asked: DrawingCase = {
    halves: [0.4],
    normal: 0.2,
    rounds: [],
    halfFigure: 0,
    standard: 0.3,
    expanded: 0.6,
  };
  const [one, other] = [drawn(asked, 100_000, 1).part, drawn(asked, 100_000, 2).part];
  const all = drawnOf([one, other]);
  expect(all.draws).toBe(200_000);
  expect(all.mean).toBeCloseTo((one.sum + other.sum) / 200_000, 12);
  expect(all.high).toBeGreaterThan(Math.min(drawnOf([one]).high, drawnOf([other]).high));
  expect(all.high).toBeLessThan(Math.max(drawnOf([one]).high, drawnOf([other]).high));
});
