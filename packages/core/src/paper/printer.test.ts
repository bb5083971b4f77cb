import { printerError, printerFactor } from './printer';
import { stampedMarks, tapeDrawing, tapeRound } from './rim-tape';
import { finestStep } from './wheel';

test('a printer of 1 % one way turns a wheel’s marks by up to 0.29°, alike both ways not at all; a tape runs on by 3.6°', () => {
  const one = printerError({ across: 1.01, along: 1 });
  // Found anew by looking at every angle.
  let most = 0;
  for (let at = 0; at < 360; at += 0.05) {
    const [x, y] = [1.01 * Math.sin((at * Math.PI) / 180), Math.cos((at * Math.PI) / 180)];
    const off = Math.abs(((Math.atan2(x, y) * 180) / Math.PI - at + 540) % 360) - 180;
    most = Math.max(most, Math.abs(off));
  }
  expect(one.wheel).toBeCloseTo(most, 4);
  expect(one.wheel).toBeCloseTo(0.285, 3);
  expect(one.tape).toBeCloseTo(3.6, 9);
  expect(printerError({ across: 0.98, along: 0.98 }).wheel).toBe(0);
  expect(printerError({ across: 0.98, along: 0.98 }).tape).toBeCloseTo(7.2, 9);
});

test('what was measured is a factor, or no printer’s', () => {
  expect(printerFactor({ across: 99.5, along: 100.5 })).toEqual({ ok: true, factor: { across: 0.995, along: 1.005 } });
  expect(printerFactor({ across: 89, along: 100 }).ok).toBe(false);
  expect(printerFactor({ across: 100, along: 112 })).toMatchObject({
    problem: { remedy: expect.stringMatching(/fit to page/) },
  });
});

test('a tape counts its paper; before TDC passes first; distances as on a rule', () => {
  // π(D + paper thickness), 1-trade: geometry.
  expect(tapeRound({ round: Math.PI * 200, thickness: 0.5 })).toBeCloseTo(Math.PI * 200.5, 9);
  const { marks, length } = tapeDrawing({
    round: 720,
    thickness: 0,
    span: 60,
    tdcs: [
      { at: 690, name: '4' },
      { at: 330, name: '6' },
    ],
    timing: [],
  });
  expect(length).toBeCloseTo(240, 9);
  const place = (text: string): number[] =>
    marks.flatMap((mark) => (mark.kind === 'words' && mark.text === text ? [mark.x] : []));
  expect(place('TDC')).toEqual([120]);
  expect(place('moves this way')[0]).toBeGreaterThan(120);
  // Cylinder 4 fires 690° after: 30° before this TDC comes round again, on the side that passes first.
  expect(place('4, 6')[0]).toBeCloseTo(180, 9);
  expect(place('before').every((x) => x > 120)).toBe(true);
  expect(stampedMarks(Math.PI * 200)[1]).toEqual({ degrees: 10, inches: '11/16 in', mm: '17.45 mm' });
});

test('quarters only where they stand apart', () => {
  expect([40, 60, 90, 110, 200].map(finestStep)).toEqual([1, 0.5, 0.5, 0.25, 0.25]);
});
