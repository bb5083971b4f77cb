import fc from 'fast-check';
import { targetCentreline } from '../cam/target';
import { centreline as centrelineOf } from '../measure/methods/flank-pair';
import { JUDGED } from '../testing/judged';
import { FAULTS } from '../verdict/faults';
import { type FaultFinding, type Judged, judge } from '../verdict/verdict';
import { tellTogether, tellVerdict } from './verdict-words';

const centreline = (opening: number, closing: number, zero = 0, valve: 'intake' | 'exhaust' = 'intake') => {
  const found = centrelineOf(valve, { opening, closing }, zero);
  if (!found.ok) throw new Error(found.problem.message);
  return found.centreline;
};
const verdict = (mean: number, target = 107, more: Partial<Judged> = {}) =>
  tellVerdict(judge({ ...JUDGED, delta: target - mean, ...more }), {
    units: 'in',
    label: (entry) => `reading ${entry}`,
  });
const fault = (name: FaultFinding['fault'], amount = 0): FaultFinding => ({
  fault: name,
  seen: false,
  better: 20,
  entries: ['7'],
  valve: 'intake',
  amount,
  printed: null,
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

const NAMES = ['Intake', 'Exhaust'];

describe('verdict', () => {
  // Worked value, common practice, no source: 66/153 against 107 is 2.5° late.
  test('66 and 153 against 107: 2.5° late, advance it 2.5°', () => {
    const found = verdict(centreline(66, 153));
    expect(found).toMatchObject({
      kind: 'move',
      delta: -2.5,
      move: 2.5,
      headline: 'The cam sits 2.5° late, retarded, ±0.2°.',
    });
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
    expect(verdict(107.3, 107, { limit: 0.3 }).kind).toBe('leave');
    expect(verdict(108.04)).toMatchObject({ kind: 'move', headline: 'The cam sits 1.04° late, retarded, ±0.2°.' });
    expect(verdict(107.02).headline).toBe('The cam sits on the target, ±0.2°.');
  });

  test('nothing is moved on an unproved zero, an unbelievable figure, or quarrelling repeats', () => {
    expect(verdict(109.5, 107, { zeroProved: false })).toMatchObject({ kind: 'do-not-move', move: 0 });
    expect(verdict(123).kind).toBe('do-not-move');
    expect(verdict(109.5, 107, { spread: 1.5 })).toMatchObject({ kind: 'measure-again', move: 0 });
    expect(verdict(109.5, 107, { spread: 1.5, limit: 2 }).kind).toBe('move');
    expect(verdict(109.5, 107, { chance: 0.004, worst: '7' })).toMatchObject({
      kind: 'measure-again',
      action: expect.stringMatching(/The reading “reading 7” fits worst/),
    });
  });

  test('a target that no drive reaches is told from a cam that no drive puts there', () => {
    expect(verdict(107, 70, { ahead: 37 }).headline).toMatch(/its target is 37\.0° away, and no timing set reaches/);
    expect(verdict(144, 107).headline).toMatch(/37\.0° late, retarded, is not believable/);
  });

  test('a figure that does not say which way moves nothing, and what to read next is said', () => {
    const next = { view: null, method: 'centreline', valve: 'exhaust', height: 1.27, expanded: 0.9 } as const;
    expect(verdict(109, 107, { expanded: 2.4, next })).toMatchObject({
      kind: 'measure-again',
      move: 0,
      headline: 'Do not move the cam yet: 2.0° late, retarded, but only known to ±2.4°.',
      action: expect.stringMatching(
        /too uncertain to say which way to move it\. Read .*exhaust.* too: .* about ±0\.9°\.$/,
      ),
    });
    expect(verdict(109, 107, { expanded: 1.9, next }).kind).toBe('move');
    // Inside the limit, but known much more coarsely than it: read again where that helps, else leave it.
    expect(verdict(107.5, 107, { expanded: 2.4, next }).kind).toBe('measure-again');
    expect(verdict(107.5, 107, { expanded: 2.4, next: { ...next, expanded: 2.3 } }).kind).toBe('leave');
  });

  test('a cam is left as little as it is moved before what nobody has looked at: the closing check, a reading that may be wrong', () => {
    const first = ['read-pair', 'closing-check'] as const;
    expect(verdict(107.5, 107, { first })).toMatchObject({
      kind: 'leave',
      first,
      action: expect.stringMatching(/First read the pair once more, and make the closing check\. Then leave it\.$/),
    });
    const doubted = [fault('misread')];
    expect(verdict(107.5, 107, { first, doubted })).toMatchObject({
      kind: 'measure-again',
      move: 0,
      first: [],
      headline: 'Do not move the cam yet: 0.5° late, retarded, but something may be wrong.',
      action: expect.stringMatching(/^It may be that .*reading 7/),
    });
    expect(verdict(107, 107, { doubted }).headline).toMatch(/on the target, but something may be wrong/);
  });

  test('what may have happened is told whole, and the closing check comes first where it tells', () => {
    const doubted = [fault('backwards'), fault('wheel-slipped', 3)];
    const action = (closingDue: boolean): string => verdict(109, 107, { doubted, closingDue }).action;
    expect(action(true)).toMatch(
      /^It may be that .*backwards.*; or that the wheel or the pointer moved by 3\.0°.*\. Make the closing check: it tells whether the wheel moved\. \S/,
    );
    expect(action(true)).toContain(FAULTS.backwards.check);
    expect(action(false)).not.toContain('closing check');
    const slipped = verdict(109, 107, { doubted: doubted.slice(1), closingDue: true }).action;
    expect(slipped).toMatch(/Make the closing check: it tells whether the wheel moved\.$/);
  });

  test('a fault forbids the move; the wrong cam, and lobes ground apart, say so only when nothing else explains it', () => {
    const [apart, slipped] = [fault('lsa-off', -4), fault('wheel-slipped', 3)];
    expect(verdict(110, 107, { named: [apart] })).toMatchObject({ kind: 'lsa-off', move: 0 });
    expect(verdict(110, 107, { named: [slipped, apart] })).toMatchObject({
      kind: 'do-not-move',
      move: 0,
      headline:
        'Do not move the cam yet: most likely the wheel or the pointer moved by 3.0°, before the reading “reading 7”.',
      action: expect.stringMatching(/It may also be that the lobes are ground 2\.0° of the cam further apart/),
    });
    expect(verdict(110, 107, { named: [fault('wrong-cam')] })).toMatchObject({ kind: 'wrong-cam', move: 0 });
  });

  test('of two cams the gravest speaks; where both may be moved each has its say', () => {
    const [late, good] = [verdict(110, 107, { cam: 'intake' }), verdict(107, 107, { cam: 'exhaust' })];
    expect(tellTogether([late, good], NAMES)).toMatchObject({
      kind: 'move',
      headline: 'The intake cam sits 3.0° late, retarded, ±0.2°. The exhaust cam sits on the target, ±0.2°.',
      action: expect.stringMatching(/^Intake: Advance it 3\.0°.* Exhaust: .*Leave it\.$/),
    });
    expect(tellTogether([good, verdict(130, 107, { cam: 'exhaust' })], NAMES)?.kind).toBe('do-not-move');
    expect(tellTogether([], NAMES)).toBeNull();
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
