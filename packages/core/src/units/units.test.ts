import { cutText, isWellFormed } from './text';
import fc from 'fast-check';
import { crankDeg, forwardArc, forwardMidpoint, toCam, wrap180, wrap360 } from './angle';
import { decimal } from './decimal';
import { wheelDegrees } from './degrees';
import { inchFraction, formatLength, inches, parseLength, typedLength } from './length';

const lift = (typed: string, unit: 'in' | 'mm' = 'in') => parseLength(typed, { family: 'lift', unit });

describe('lengths', () => {
  // NIST SP 811, B.8: 1 in = 25.4 mm exactly.
  test('inches are exact in millimetres', () => {
    expect(inches('1')).toBe(25.4);
    expect(inches('0.050')).toBe(1.27);
    expect(inches('3.48')).toBe(88.392);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999 }), (tenthThou) => {
        const mm = inches((tenthThou / 10_000).toFixed(4));
        expect(Math.round(mm * 1e6)).toBe(tenthThou * 2540);
      }),
    );
  });

  // Common practice, no source: in inch units 1 or more is thou, below 1 is inch.
  test.each(['50', '.050', '0.050', '0,050', '50 thou', '0.05 in', '1.27mm', '.05"'])('%s is fifty thou', (typed) =>
    expect(lift(typed)).toEqual({ ok: true, mm: 1.27, understood: typed.endsWith('mm') ? '1.27 mm' : '0.050 in' }),
  );

  // Definition of the fractions; 1 in = 25.4 mm.
  test.each([
    ['1 7/8', 47.625],
    ['1-7/8 in', 47.625],
    ['7/8', 22.225],
    ['1½', 38.1],
    ['1 ½"', 38.1],
    ['3 31/64 in', 88.503125],
    ['1 inches', 25.4],
    ['2½ mm', 2.5],
    ['⅜ in', 9.525],
  ])('%s as it is typed at a bench', (typed, mm) => {
    for (const unit of ['in', 'mm'] as const)
      if (unit === 'in' || /in|"|mm|\//.test(typed))
        expect(parseLength(typed, { family: 'dimension', unit })).toMatchObject({ ok: true, mm });
    expect(lift(typed)).toMatchObject({ ok: true, mm });
  });

  test.each([
    [47.625, '1⅞ in'],
    [25.4, '1 in'],
    [9.525, '⅜ in'],
    [25.4 * (2 + 5 / 64), '2 5/64 in'],
    [50, null],
  ])('%d mm on a rule is %p', (mm, words) => {
    expect(inchFraction(mm)).toBe(words);
    // What is shown can be typed, and is the same.
    if (words !== null) {
      const again = parseLength(words, { family: 'dimension', unit: 'in' });
      expect(again.ok ? again.mm : NaN).toBeCloseTo(mm, 4);
    }
  });
  test.each(['7/0', '9/8', '1/200', '7/8 thou', '−1/2', '–3', '1 7/8 ft', '7/', '/8'])('%p is refused', (typed) =>
    expect(parseLength(typed, { family: 'dimension', unit: 'in' })).toMatchObject({ ok: false }),
  );

  test('bore, stroke and rod are always whole inches', () =>
    expect(parseLength('3.48', { family: 'dimension', unit: 'in' })).toMatchObject({
      mm: 88.392,
      understood: '3.480 in',
    }));

  test.each(['', '.', 'fifty', '5 0', '-1', '0.05 ft', '1.2.3', '9999'])('%p is refused with a reason', (typed) => {
    const parsed = parseLength(typed, { family: 'dimension', unit: 'in' });
    expect(parsed).toEqual({ ok: false, message: expect.stringMatching(/\w{4,}.*\./) });
  });

  test('a kept length comes back from the form as it was kept', () => {
    expect(typedLength(1.27, 'in')).toBe('0.050 in');
    expect(typedLength(0.1524, 'mm')).toBe('0.006 in');
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40_000_000 }), fc.constantFrom('in' as const, 'mm' as const), (n, unit) => {
        const kept = n / 1e6;
        expect(lift(typedLength(kept, unit), unit)).toMatchObject({ ok: true, mm: kept });
      }),
    );
  });

  test('what was understood can be typed again and means the same', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999 }), fc.constantFrom('in' as const, 'mm' as const), (n, unit) => {
        const first = lift(String(n / 1000), unit);
        if (!first.ok || (unit === 'mm' && n % 10 !== 0)) return;
        expect(lift(first.understood, unit)).toEqual(first);
      }),
    ));
});

describe('angles', () => {
  test('midpoints go the way the arc runs (common practice, no source)', () => {
    expect(forwardMidpoint(339, 235)).toBe(107);
    expect(forwardMidpoint(235, 339)).toBe(287);
    expect(forwardMidpoint(200, 274)).toBe(237);
    expect(forwardArc(350, 15)).toBe(25);
    expect(toCam(crankDeg(5))).toBe(2.5);
  });

  test('wrapping lands in its range and changes only whole turns', () =>
    fc.assert(
      fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), (angle) => {
        for (const [wrapped, from, to] of [
          [wrap360(angle), 0, 360],
          [wrap180(angle), -180, 180],
        ] as const) {
          expect(wrapped >= from && wrapped < to).toBe(true);
          const turns = (angle - wrapped) / 360;
          expect(Math.abs(turns - Math.round(turns))).toBeLessThan(1e-9);
        }
      }),
    ));
});

describe('text', () => {
  test('rounds half up on the decimal digits', () => {
    expect(decimal(2.45, 1)).toBe('2.5');
    expect(decimal(1.005, 2)).toBe('1.01');
    expect(decimal(-2.45, 1)).toBe('−2.5');
    expect(decimal(-0.04, 1)).toBe('0.0');
  });

  test('readings are written as the trade writes them', () => {
    expect([26.5, 0.25, 0, 12.75, 12.3, 7.125, -2.5].map(wheelDegrees)).toEqual([
      '26½°',
      '¼°',
      '0°',
      '12¾°',
      '12.3°',
      '7.13°',
      '−2½°',
    ]);
    expect(formatLength(1.27, 'in')).toBe('0.050 in');
    expect(formatLength(8.3947, 'in')).toBe('0.3305 in');
    expect(formatLength(88.392, 'mm', 'dimension')).toBe('88.392 mm');
    expect(formatLength(1.5, 'mm')).toBe('1.50 mm');
  });
});

describe('text', () => {
  // The Unicode Standard, chapter 3.9: no text that is cut out of a whole one may end in half a surrogate pair.
  test('is cut between characters as people count them, never in one', () => {
    expect(cutText('Lap 👍', 5)).toBe('Lap ');
    expect(cutText('Lap 👍', 6)).toBe('Lap 👍');
    // One flag is two code points of two units each; a letter with its accent apart is one character.
    expect(cutText('a🇳🇴b', 4)).toBe('a');
    expect(cutText('cafe\u0301', 4)).toBe('caf');
    expect(cutText('', 3)).toBe('');
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), fc.nat(40), (text, most) => {
        const cut = cutText(text, most);
        expect(cut.length).toBeLessThanOrEqual(most);
        expect(text.startsWith(cut)).toBe(true);
        expect(isWellFormed(cut)).toBe(true);
      }),
    );
  });

  test('half a surrogate pair is seen wherever it stands', () => {
    for (const half of ['👍'.slice(0, 1), '👍'.slice(1), `a${'👍'.slice(1)}b`]) expect(isWellFormed(half)).toBe(false);
    for (const whole of ['', 'plain', '👍🏽', 'ñ']) expect(isWellFormed(whole)).toBe(true);
  });
});
