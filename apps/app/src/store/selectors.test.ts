import { checkEntry, isUndoable } from '@yosoku/core/record/check-entry';
import type { Entry } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { provideArithmetic } from './arithmetic';
import { drafted, draftDone } from './drafts-slice';
import { listed, received } from './logbook-slice';
import { delivered, recorded, recovered, refused, triedAgain } from './outbox-slice';
import { selectBuilds, selectEntries, selectReport } from './selectors';
import { ruled, signedIn, signedOut } from './session-slice';
import { makeStore } from './store';

const SHOP = 'shop-a';
const account = {
  builderId: 'me',
  builderName: 'Mara',
  role: 'owner',
  shopId: SHOP,
  shopName: 'Fennel Yard',
  zeroRule: null,
  readRule: null,
} as const;
const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const entry = (n: number, buildId: string, kind: Entry['kind'], body: object): Entry =>
  ({ id: uuid(n), buildId, builderId: 'me', takenAt: '2026-03-14T09:26:53Z', kind, body }) as Entry;
const opening = (n: number, buildId: string, name: string): Entry =>
  entry(n, buildId, 'build.described', {
    replaces: null,
    name,
    engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise' },
    wheel: { ring: '0-180' },
    units: 'in',
  });
const wait = (each: Entry) => ({ shopId: SHOP, entry: each });

beforeAll(() => provideArithmetic({ derive, checkEntry, isUndoable }));

test('a build begun offline stands in the list at once, before the server’s, and only once when it has arrived', () => {
  const store = makeStore();
  store.dispatch(signedIn(account));
  const old = { id: 'b-old', name: 'Old', place: 'zero' as const, headline: '', updatedAt: '' };
  store.dispatch(listed({ shopId: SHOP, builds: [old] }));
  const first = opening(1, 'b-new', 'New four');
  store.dispatch(recorded([wait(first)]));
  expect(selectBuilds(store.getState()).map(({ name }) => name)).toEqual(['New four', 'Old']);
  store.dispatch(received({ buildId: 'b-new', entries: [{ ...first, seq: 1 }] }));
  expect(selectEntries(store.getState(), 'b-new')).toHaveLength(1);
  store.dispatch(delivered([first.id]));
  expect(selectEntries(store.getState(), 'b-new').map(({ seq }) => seq)).toEqual([1]);
});

test('what is worked out is worked out once, and anew only for the build that changed', () => {
  const store = makeStore();
  store.dispatch(signedIn(account));
  store.dispatch(received({ buildId: 'a', entries: [{ ...opening(1, 'a', 'A'), seq: 1 }] }));
  const before = selectReport(store.getState(), 'a');
  store.dispatch(drafted({ place: 'a/zero', draft: { text: '12' } }));
  expect(selectReport(store.getState(), 'a')).toBe(before);
  store.dispatch(recorded([wait(entry(2, 'a', 'trial.begun', { after: null }))]));
  expect(selectReport(store.getState(), 'a')?.trials).toHaveLength(1);
});

test('entries recovered from the disk come before those just made, and are not doubled', () => {
  const store = makeStore();
  const [one, two] = [wait(opening(1, 'a', 'A')), wait(entry(2, 'a', 'trial.begun', { after: null }))];
  store.dispatch(recorded([two]));
  store.dispatch(recovered([one, two]));
  expect(store.getState().outbox.waiting.map((each) => each.entry.id)).toEqual([one.entry.id, two.entry.id]);
  store.dispatch(refused({ id: two.entry.id, reason: 'no' }));
  store.dispatch(triedAgain());
  expect(store.getState().outbox.waiting.every((each) => each.refused === undefined)).toBe(true);
});

test('signing out takes the shop’s work off the device, but not what waits nor what is half typed', () => {
  const store = makeStore();
  store.dispatch(signedIn(account));
  store.dispatch(received({ buildId: 'a', entries: [{ ...opening(1, 'a', 'A'), seq: 1 }] }));
  store.dispatch(recorded([wait(entry(2, 'a', 'trial.begun', { after: null }))]));
  store.dispatch(drafted({ place: 'a/zero', draft: { text: '12' } }));
  store.dispatch(ruled({ zeroRule: 'equal-drop' }));
  expect(store.getState().session.account?.zeroRule).toBe('equal-drop');
  store.dispatch(signedOut());
  expect(store.getState().logbook.known).toEqual({});
  expect(store.getState().outbox.waiting).toHaveLength(1);
  expect(store.getState().drafts['a/zero']).toEqual({ text: '12' });
  store.dispatch(draftDone('a/zero'));
  expect(store.getState().drafts).toEqual({});
});
