import { inches } from '../units/length';
import { book } from '../testing/book';
import { parseAngles, pistonCsv, pistonTable, sourcesOf } from './piston-table';

test('where piston and valves stand: read, from the lobe through the readings, or the card’s', () => {
  const at = book();
  at.write('card.entered', {
    replaces: null,
    intake: {
      centreline: 107,
      lobeLift: 8.382,
      ratio: 1.5,
      lashHot: 0.5,
      timing: [{ height: 1.27, at: 'lobe', opens: 21, closes: 55 }],
    },
    exhaust: { centreline: 112, lobeLift: 8.382, timing: [{ height: 1.27, at: 'lobe', opens: 60, closes: 16 }] },
  });
  const setting = at.proved();
  at.pair(setting, 67, 147);
  at.round('lift-at-tdc', 'intake', [{ shows: { kind: 'tdc-lift', lift: 2.6 }, at: 0 }], { setting });
  const rows = pistonTable(at.report(), [-15, 0, 15]);
  // Stroke 3.48 in, rod 5.7 in: 0.050 in at 12.06° (common practice, no source; slider-crank, Heywood ch. 2).
  expect(rows[2]?.piston).toBeCloseTo(rows[0]?.piston ?? NaN, 9);
  expect(pistonTable(at.report(), [12.06])[0]?.piston).toBeCloseTo(inches('0.050'), 2);
  expect(rows[1]).toMatchObject({ piston: 0, intake: { lobe: 2.6, from: 'read' } });
  expect(rows[1]?.intake?.valve).toBeCloseTo(2.6 * 1.5 - 0.5, 9);
  expect(rows[2]?.intake?.from).toBe('measured');
  expect(rows[2]?.exhaust?.from).toBe('card');
  expect(rows[2]?.intake?.lobe).toBeGreaterThan(rows[0]?.intake?.lobe ?? 0);
  expect(rows[0]?.exhaust?.lobe).toBeGreaterThan(rows[2]?.exhaust?.lobe ?? 0);
  expect(sourcesOf(rows)).toMatch(
    /^Intake: from the lobe through the readings, read there\. Exhaust: from the card’s lobe, as printed: not measured\.$/,
  );
  expect(pistonCsv(rows)[1]?.slice(0, 4)).toEqual([0, 0, 2.6, 3.4]);
});

test.each([
  ['−15, 0, 15', [-15, 0, 15]],
  ['15 TDC -15 15', [-15, 0, 15]],
])('“%s” are angles', (typed, angles) => expect(parseAngles(typed)).toEqual({ ok: true, angles }));

test.each(['', 'ten', '−15, 200', '1e9', Array.from({ length: 30 }, (_, at) => at).join(' ')])(
  '“%s” is refused',
  (typed) => expect(parseAngles(typed).ok).toBe(false),
);

test('after a move the valves stand where the cam was moved to, and not where they were read before it', () => {
  const at = book();
  at.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: 8.382, timing: [{ height: 1.27, at: 'lobe', opens: 21, closes: 55 }] },
  });
  const setting = at.proved();
  at.pair(setting, 67, 147);
  at.round('lift-at-tdc', 'intake', [{ shows: { kind: 'tdc-lift', lift: 2.6 }, at: 0 }], { setting });
  const [before] = pistonTable(at.report(), [15]);
  const moved = at.write('trial.begun', {
    after: at.trial,
    move: { parts: [], cams: [{ cam: 'single', bank: 1, by: 4, standard: 0.3 }], predicted: [] },
  });
  const [top, after] = pistonTable(at.report(), [0, 15]);
  expect([top?.intake?.from, after?.intake?.from]).toEqual(['carried', 'carried']);
  // 4° earlier it is as far open as it was 4° later.
  expect(pistonTable(at.report(), [11])[0]?.intake?.lobe).toBeCloseTo(before?.intake?.lobe ?? NaN, 9);
  // Moved once more by who knows what: nobody can say, and the card's is called what it is.
  at.write('trial.begun', { after: moved });
  expect(pistonTable(at.report(), [15])[0]?.intake?.from).toBe('card');
});

test('what was read at another cylinder stands for that cylinder alone', () => {
  const at = book();
  const setting = at.proved();
  at.pair(setting, 67, 147);
  const shows = { kind: 'tdc-lift' as const, lift: 2.6 };
  at.round('lift-at-tdc', 'intake', [{ shows, at: 120 }], { setting, cylinder: 5 });
  expect(pistonTable(at.report(), [0])[0]?.intake?.from).not.toBe('read');
});
