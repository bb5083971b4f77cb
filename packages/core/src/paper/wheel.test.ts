import type { Mark } from './drawing';
import { type NamedPlace, type PaperWheel, wheelDrawing } from './wheel';

const WHEEL: PaperWheel = {
  diameter: 240,
  rings: [{ ring: '0-180' }],
  rotation: 'clockwise',
  hole: 30,
  bolts: { circle: 80, count: 4, size: 10 },
  places: [],
};
const words = (marks: readonly Mark[]) => marks.flatMap((mark) => (mark.kind === 'words' ? [mark] : []));
/** Clockwise from the top, degrees. */
const angleOf = ({ x, y }: { readonly x: number; readonly y: number }): number =>
  ((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360;

test('one ring, or two: the numbers of the second stand inside of the first, TDC of both at the top', () => {
  const one = words(wheelDrawing(WHEEL)).filter(({ text }) => text === 'TDC');
  const two = words(wheelDrawing({ ...WHEEL, rings: [{ ring: '0-180' }, { ring: '0-90' }] })).filter(
    ({ text }) => text === 'TDC',
  );
  expect(one).toHaveLength(1);
  expect(two).toHaveLength(2);
  for (const each of two) expect(angleOf(each)).toBeCloseTo(0, 9);
  const [outer, inner] = two.map(({ y }) => -y);
  expect(outer).toBeGreaterThan((inner ?? 0) + 10);
  // Every number lies inside of the wheel.
  for (const { x, y, size } of words(wheelDrawing(WHEEL))) expect(Math.hypot(x, y) + size / 2).toBeLessThan(120);
});

test('a named place is led from its own angle; names that would be written over one another are pushed apart, none is lost', () => {
  const places: NamedPlace[] = [
    { at: 0, name: 'TDC 1', tone: 'ink' },
    { at: 0, name: 'TDC 6', tone: 'ink' },
    { at: 358, name: 'IVO', tone: 'intake' },
    { at: 2, name: 'EVC', tone: 'exhaust' },
    { at: 200, name: 'IVC', tone: 'intake' },
  ];
  const drawn = wheelDrawing({ ...WHEEL, places });
  const named = words(drawn).filter(({ text }) => /^(TDC \d|[IE]V)/.test(text));
  expect(named.map(({ text }) => text).sort()).toEqual(['EVC', 'IVC', 'IVO', 'TDC 1, TDC 6']);
  // 1-trade §2: turned clockwise, what comes later stands to the left: IVO before TDC lies right of it, EVC after it left.
  const at = (name: string): number => {
    const found = named.find(({ text }) => text === name);
    return found ? ((angleOf(found) + 180) % 360) - 180 : NaN;
  };
  expect(at('EVC')).toBeLessThan(at('TDC 1, TDC 6'));
  expect(at('TDC 1, TDC 6')).toBeLessThan(at('IVO'));
  const middle = named.filter(({ text }) => text !== 'IVC').map((each) => [each.x, each.y] as const);
  for (const [i, [x, y]] of middle.entries())
    for (const [otherX, otherY] of middle.slice(i + 1)) expect(Math.hypot(x - otherX, y - otherY)).toBeGreaterThan(4);
  // The line itself begins at the true angle of its event.
  const begins = drawn.flatMap((mark) =>
    mark.kind === 'line' && mark.tone === 'intake' ? [angleOf({ x: mark.x1, y: mark.y1 })] : [],
  );
  expect(begins.some((angle) => Math.abs(angle - 2) < 1e-6)).toBe(true);
});

test('names either side of BDC stand apart too, in their order', () => {
  const places: NamedPlace[] = [
    { at: 179, name: 'IVC', tone: 'intake' },
    { at: 180, name: 'TDC 4', tone: 'ink' },
    { at: 181.4, name: 'EVO', tone: 'exhaust' },
  ];
  const named = words(wheelDrawing({ ...WHEEL, places })).filter(({ text }) => /^(TDC \d|[IE]V)/.test(text));
  const angles = new Map(named.map((each) => [each.text, angleOf(each)]));
  const [ivc = NaN, tdc = NaN, evo = NaN] = ['IVC', 'TDC 4', 'EVO'].map((name) => angles.get(name));
  // Turned clockwise, what comes later stands further back.
  expect(ivc - tdc).toBeGreaterThan(2);
  expect(tdc - evo).toBeGreaterThan(2);
  expect(ivc - evo).toBeLessThan(12);
});

test('hole, bolts and the arrow: crosses where they are pierced, the head of the arrow the way it runs', () => {
  const circles = (marks: readonly Mark[]) => marks.flatMap((mark) => (mark.kind === 'circle' ? [mark] : []));
  const drawn = wheelDrawing(WHEEL);
  expect(
    circles(drawn)
      .filter(({ r }) => r === 5)
      .map(({ x, y }) => Math.hypot(x, y)),
  ).toEqual(Array(4).fill(expect.closeTo(40, 9)));
  expect(circles(drawn).filter(({ r }) => r === 15)).toHaveLength(1);
  expect(circles(wheelDrawing({ ...WHEEL, hole: 0, bolts: null })).map(({ r }) => r)).toEqual([120]);
  const head = (rotation: PaperWheel['rotation']): number => {
    const shape = wheelDrawing({ ...WHEEL, rotation }).find((mark) => mark.kind === 'shape');
    return shape?.kind === 'shape' ? (shape.points[0]?.[0] ?? 0) : 0;
  };
  expect(head('clockwise')).toBeGreaterThan(0);
  expect(head('counter-clockwise')).toBeLessThan(0);
});
