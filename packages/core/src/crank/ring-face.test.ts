import { type WheelRing, readingAt, ringPosition } from './wheel';
import { band, polar } from './dial';
import { faceNumbers, runningSign } from './ring-face';

const RINGS: WheelRing[] = [
  { ring: '0-360', sense: 'rising' },
  { ring: '0-360', sense: 'falling' },
  { ring: '0-180' },
  { ring: '0-90' },
];

test.each(RINGS)('every number on the face of %j stands where it is read', (ring) => {
  for (const { at, text } of faceNumbers(ring)) {
    const reading = readingAt(ring, at);
    expect(ringPosition(reading)).toBeCloseTo(at, 9);
    if (/^\d/.test(text)) expect(Number(text)).toBe(reading.shows);
    else expect(at).toBe(text === 'TDC' ? 0 : 180);
  }
});

test('a rim has its mark, and the inches of a tape laid round it both ways', () => {
  // 565 mm round is 22.2 in: eleven inches each way.
  const [mark, ...tape] = faceNumbers({ ring: 'rim', round: 565, unit: 'in' });
  expect(mark).toEqual({ at: 0, text: 'MARK', strong: true });
  expect(tape).toHaveLength(20);
  for (const { at, text } of tape) expect(Math.abs((at * 565) / 360 / 25.4)).toBeCloseTo(Number(text), 9);
});

test('a clockwise engine brings what comes later from the left', () => {
  // Later ring positions lie counter-clockwise on the face of a clockwise engine.
  const [x] = polar(100, -runningSign('clockwise') * 90);
  expect(x).toBeCloseTo(-100, 9);
  expect(polar(100, 0)[1]).toBeCloseTo(-100, 9);
});

test('a band over more than half a turn takes the long way round', () => {
  expect(band(80, 120, 0, 200)).toContain(' 0 1 1 ');
  expect(band(80, 120, 0, -40)).toContain(' 0 0 0 ');
});
