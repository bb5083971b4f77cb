import { book, id } from '../testing/book';
import type { Hardware } from '../timing-set/hardware';
import { takenOver } from './like';

const HARDWARE: Hardware = { kind: 'slotted-pulley', stamped: 'crank', range: 8, scale: true };

test('card, target and the drive as it was first fitted come along; no reading, no check', () => {
  const at = book();
  at.write('target.set', { replaces: null, target: { kind: 'ahead-of-card', advance: 2 }, limit: 0.5 });
  at.card();
  const part = {
    part: id(),
    name: 'Pulley',
    library: null,
    hardware: HARDWARE,
    cam: 'all',
    bank: null,
    experience: [] as never[],
  } as const;
  at.write('drive.fitted', {
    replaces: null,
    trial: at.trial,
    camTurns: 'with-crank',
    parts: [{ ...part, at: { at: 0 } }],
  });
  at.pair(at.proved(), 66, 153);
  const second = at.write('trial.begun', { after: at.trial });
  at.write('drive.fitted', {
    replaces: null,
    trial: second,
    camTurns: 'with-crank',
    parts: [{ ...part, at: { at: 3 } }],
  });
  const taken = takenOver(at.entries, { delta: -4.5, expanded: 0.6 });
  expect(taken?.card).toEqual({ intake: { centreline: 107, lobeLift: 8.382 } });
  expect(taken?.target).toEqual({ target: { kind: 'ahead-of-card', advance: 2 }, limit: 0.5 });
  expect(taken?.drive?.parts[0]?.at).toEqual({ at: 0 });
  expect(taken?.kin).toEqual([expect.objectContaining({ name: 'Test six', delta: -4.5, expanded: 0.6 })]);
});

test('what the last three came in at goes on from build to build', () => {
  const at = book();
  const [first] = at.entries;
  if (first?.kind !== 'build.described') throw new Error('a book opens with its engine');
  const kin = ['One', 'Two', 'Three'].map((name, place) => ({ build: id(), name, delta: place, expanded: 0.5 }));
  at.write('build.described', { ...first.body, replaces: first.id, like: kin });
  expect(takenOver(at.entries, { delta: -1, expanded: 0.4 })?.kin.map(({ name }) => name)).toEqual([
    'Test six',
    'One',
    'Two',
  ]);
  // Never measured, it tells nothing of how it came in, and its kin still do.
  expect(takenOver(at.entries, null)?.kin.map(({ name }) => name)).toEqual(['One', 'Two', 'Three']);
  expect(at.report().build.like).toHaveLength(3);
  expect(takenOver([], null)).toBeNull();
});
