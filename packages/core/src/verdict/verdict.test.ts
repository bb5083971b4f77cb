import fc from 'fast-check';
import { targetCentreline } from '../cam/card';
import { combineRepeats, intakeCentreline } from '../measure/equal-drop';
import { judge } from './verdict';

const centreline = (opening: number, closing: number, zero = 0) => {
  const found = intakeCentreline({ opening, closing }, zero);
  if (!found.ok) throw new Error(found.problem.message);
  return found.centreline;
};
const verdict = (mean: number, target = 107, limit = 1, spread = 0, count = 1, zeroProved = true) =>
  judge({ measured: { mean, spread, count }, target, limit, zeroProved });

describe('intake centreline by equal drop', () => {
  // Worked values, common practice, no source.
  test('69 and 158.5 give 113.75', () => expect(centreline(69, 158.5)).toBe(113.75));
  test('64 and 149 give 106.5', () => expect(centreline(64, 149)).toBe(106.5));

  test('does not care where the wheel is mounted, nor how wide the nose is', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 150, noNaN: true }),
        fc.double({ min: 10, max: 110, noNaN: true }),
        fc.double({ min: -720, max: 720, noNaN: true }),
        (icl, half, mount) => expect(centreline(icl - half + mount, icl + half + mount, mount)).toBeCloseTo(icl, 6),
      ),
    ));

  test('exchanged or equal readings are named', () => {
    const exchanged = intakeCentreline({ opening: 158.5, closing: 69 }, 0);
    expect(exchanged.ok ? '' : exchanged.problem.remedy).toMatch(/exchanged/);
    expect(intakeCentreline({ opening: 69, closing: 70 }, 0).ok).toBe(false);
  });

  test('repeats: mean and spread', () => {
    expect(combineRepeats([109, 109.5, 110])).toEqual({ mean: 109.5, spread: 1 });
    expect(combineRepeats([])).toBeNull();
  });
});

describe('verdict', () => {
  // Worked value, common practice, no source: 66/153 against 107 is 2.5° late.
  test('66 and 153 against 107: 2.5° late, advance it 2.5°', () => {
    const found = verdict(centreline(66, 153));
    expect(found).toMatchObject({ kind: 'move', delta: -2.5, move: 2.5, headline: 'The cam sits 2.5° late.' });
    expect(found.action).toBe('Advance it 2.5°: turn the cam the way it runs.');
    expect(found.why).toContain('1.25° at the cam');
  });

  test('early is retarded, against the way it runs', () =>
    expect(verdict(103)).toMatchObject({
      delta: 4,
      move: -4,
      action: 'Retard it 4.0°: turn the cam against the way it runs.',
    }));

  test('the limit itself is inside; beyond it the figure shown is never the limit', () => {
    expect(verdict(108)).toMatchObject({ kind: 'leave', move: 0 });
    expect(verdict(107.3, 107, 0.3).kind).toBe('leave');
    expect(verdict(108.04)).toMatchObject({ kind: 'move', headline: 'The cam sits 1.04° late.' });
    expect(verdict(107.02).headline).toBe('The cam sits on the target.');
  });

  test('nothing is moved on an unproved zero, an unbelievable figure, or quarrelling repeats', () => {
    expect(verdict(109.5, 107, 1, 0, 1, false)).toMatchObject({ kind: 'do-not-move', move: 0 });
    expect(verdict(123).kind).toBe('do-not-move');
    expect(verdict(109.5, 107, 1, 1.5, 2)).toMatchObject({ kind: 'measure-again', move: 0 });
    expect(verdict(109.5, 107, 2, 1.5, 2).kind).toBe('move');
  });

  test('doing the move lands on the target; advance then retard is nothing', () =>
    fc.assert(
      fc.property(fc.double({ min: 92, max: 122, noNaN: true }), (icl) => {
        const { kind, move } = verdict(icl);
        if (kind !== 'move') return;
        // Advance is positive and makes the centreline smaller.
        expect(verdict(icl - move).kind).toBe('leave');
        expect(verdict(icl - move + move).move).toBeCloseTo(move, 9);
      }),
    ));

  test('targets: the card, ahead of it, or a figure of one’s own', () => {
    const card = { centreline: 108 };
    expect(targetCentreline(card, { kind: 'card' })).toMatchObject({ centreline: 108 });
    expect(targetCentreline(card, { kind: 'ahead-of-card', advance: 2 })).toMatchObject({ centreline: 106 });
    expect(targetCentreline({}, { kind: 'centreline', centreline: 110 })).toMatchObject({ centreline: 110 });
    expect(targetCentreline({}, { kind: 'card' }).ok).toBe(false);
  });
});
