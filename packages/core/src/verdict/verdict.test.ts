import fc from 'fast-check';
import { targetCentreline } from '../cam/target';
import { centreline as centrelineOf } from '../measure/flank-pair';
import { judge } from './verdict';

const centreline = (opening: number, closing: number, zero = 0, valve: 'intake' | 'exhaust' = 'intake') => {
  const found = centrelineOf(valve, { opening, closing }, zero);
  if (!found.ok) throw new Error(found.problem.message);
  return found.centreline;
};
const verdict = (mean: number, target = 107, limit = 1, spread = 0, zeroProved = true) =>
  judge({
    delta: target - mean,
    expanded: 0.2,
    spread,
    limit,
    zeroProved,
    basis: `Intake centreline ${mean}°; wanted ${target}°`,
    disagreement: null,
  });

describe('centreline by equal drop', () => {
  // Worked values, common practice, no source.
  test('69 and 158.5 give 113.75', () => expect(centreline(69, 158.5)).toBe(113.75));
  test('64 and 149 give 106.5', () => expect(centreline(64, 149)).toBe(106.5));
  test('exhaust 160 and 63 before TDC give 111.5', () => expect(centreline(-160, -63, 0, 'exhaust')).toBe(111.5));

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
    const exchanged = centrelineOf('intake', { opening: 158.5, closing: 69 }, 0);
    expect(exchanged.ok ? '' : exchanged.problem.remedy).toMatch(/exchanged/);
    expect(centrelineOf('intake', { opening: 69, closing: 70 }, 0).ok).toBe(false);
  });
});

describe('verdict', () => {
  // Worked value, common practice, no source: 66/153 against 107 is 2.5° late.
  test('66 and 153 against 107: 2.5° late, advance it 2.5°', () => {
    const found = verdict(centreline(66, 153));
    expect(found).toMatchObject({ kind: 'move', delta: -2.5, move: 2.5, headline: 'The cam sits 2.5° late, ±0.2°.' });
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
    expect(verdict(108.04)).toMatchObject({ kind: 'move', headline: 'The cam sits 1.04° late, ±0.2°.' });
    expect(verdict(107.02).headline).toBe('The cam sits on the target, ±0.2°.');
  });

  test('nothing is moved on an unproved zero, an unbelievable figure, or quarrelling repeats', () => {
    expect(verdict(109.5, 107, 1, 0, false)).toMatchObject({ kind: 'do-not-move', move: 0 });
    expect(verdict(123).kind).toBe('do-not-move');
    expect(verdict(109.5, 107, 1, 1.5)).toMatchObject({ kind: 'measure-again', move: 0 });
    expect(verdict(109.5, 107, 2, 1.5).kind).toBe('move');
  });

  test('a figure that does not say which way moves nothing', () => {
    const coarse = { spread: 0, limit: 1, zeroProved: true, basis: '', disagreement: null };
    expect(judge({ ...coarse, delta: -2, expanded: 2.4 })).toMatchObject({
      kind: 'measure-again',
      move: 0,
      headline: 'Do not move it yet: 2.0° late, but only known to ±2.4°.',
    });
    expect(judge({ ...coarse, delta: -2, expanded: 1.9 }).kind).toBe('move');
    expect(judge({ ...coarse, delta: -0.5, expanded: 2.4 }).kind).toBe('leave');
  });

  test('two views of one cam that cannot both be right: measured again, nothing moved', () => {
    const disagreement = { between: 'intake and exhaust', by: 4 };
    expect(
      judge({ delta: -3, expanded: 0.2, spread: 0, limit: 1, zeroProved: true, basis: '', disagreement }),
    ).toMatchObject({
      kind: 'measure-again',
      move: 0,
      headline: 'Do not move it yet: intake and exhaust disagree by 4.0°.',
    });
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
    expect(targetCentreline(108, { kind: 'card' })).toMatchObject({ centreline: 108 });
    expect(targetCentreline(108, { kind: 'ahead-of-card', advance: 2 })).toMatchObject({ centreline: 106 });
    expect(targetCentreline(null, { kind: 'centreline', centreline: 110 })).toMatchObject({ centreline: 110 });
    expect(targetCentreline(null, { kind: 'card' }).ok).toBe(false);
  });
});
