import { makeRandom } from '../statistics/random';
import { type PatternMarks, type PhotoPlace, patternOnPhoto } from './pattern-on-photo';

const TIP = 8;

/** A camera held anyhow: the plane of the tip turned, squeezed and sheared onto the photo. */
function camera(turn: number, squeeze: number, shear: number) {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (x: number, y: number): PhotoPlace => {
    const [u, v] = [100 * (x + shear * y), 100 * squeeze * y];
    return [900 + c * u - s * v, 700 + s * u + c * v];
  };
}

test('however the camera was held, width and place come out as they are', () => {
  const random = makeRandom(11);
  for (let i = 0; i < 500; i += 1) {
    const at = camera(6 * random.even(), 0.5 + random.even(), random.even() - 0.5);
    const width = 0.4 + 2 * random.even();
    const offset = 2 * random.even() - 1;
    const marks: PatternMarks = [at(-TIP / 2, 0), at(TIP / 2, 0), at(offset - width / 2, 0), at(offset + width / 2, 0)];
    const read = patternOnPhoto(marks, TIP, 2);
    expect(read.ok).toBe(true);
    if (!read.ok) continue;
    expect(read.found.width).toBeCloseTo(width, 9);
    expect(read.found.offset).toBeCloseTo(offset, 9);
  }
});

test('its width is as uncertain as fingers are: 95 of 100 fall within', () => {
  const random = makeRandom(3);
  const at = camera(0.3, 0.9, 0.1);
  const touch = (x: number): PhotoPlace => {
    const [px, py] = at(x, 0);
    return [px + random.normal(8), py + random.normal(8)];
  };
  let inside = 0;
  for (let i = 0; i < 2000; i += 1) {
    const read = patternOnPhoto([touch(-4), touch(4), touch(-0.7), touch(0.7)], TIP, 8);
    if (read.ok && Math.abs(read.found.width - 1.4) <= read.found.expanded) inside += 1;
  }
  expect(inside / 2000).toBeGreaterThan(0.93);
  expect(inside / 2000).toBeLessThan(0.975);
});

test('touches that cannot be are said', () => {
  const said = (...marks: PatternMarks): string => {
    const read = patternOnPhoto(marks, TIP, 2);
    return read.ok ? '' : read.problem.message;
  };
  expect(said([100, 100], [105, 100], [102, 100], [103, 100])).toMatch(/one place/);
  expect(said([100, 100], [900, 100], [500, 100], [400, 100])).toMatch(/other way round/);
  expect(said([100, 100], [900, 100], [20, 100], [400, 100])).toMatch(/beyond the tip/);
  expect(said([100, 100], [900, 100], [400, 100], [960, 100])).toMatch(/beyond the tip/);
});
