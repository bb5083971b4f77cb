import { checkEntry, isUndoable } from '@yosoku/core/record/check-entry';
import type { Entry } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { provideArithmetic } from '@/store/arithmetic';
import { received } from '../store/logbook-slice';
import { recorded } from '../store/outbox-slice';
import { selectEntries, selectReport } from '../store/selectors';
import { signedIn } from '../store/session-slice';
import { type Store, makeStore } from '../store/store';
import { postWaiting } from './post-waiting';

const SHOP = 'shop-a';
const BUILD = '00000000-0000-4000-8000-00000000b17d';
const account = {
  builderId: 'me',
  builderName: 'Mara',
  role: 'owner',
  shopId: SHOP,
  shopName: 'Fennel Yard',
  zeroRule: null,
  readRule: null,
} as const;

const entry = (n: number, kind: Entry['kind'], body: object): Entry =>
  ({
    id: `00000000-0000-4000-8000-00000000000${n}`,
    buildId: BUILD,
    builderId: 'me',
    takenAt: '2026-03-14T09:26:53Z',
    kind,
    body,
  }) as Entry;

const opening = entry(1, 'build.described', {
  replaces: null,
  name: 'Test four',
  engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise' },
  wheel: { ring: '0-180' },
  units: 'in',
});
const trials = [2, 3, 4].map((n) => entry(n, 'trial.begun', { after: null }));

/** A server that answers each posting by `answer`, and remembers the ids of what was sent. */
function serve(answer: (ids: readonly string[]) => { status: number; body: object } | Error): string[][] {
  const sent: string[][] = [];
  globalThis.fetch = jest.fn(async (_url: unknown, init?: RequestInit) => {
    const body = JSON.parse(String(init?.body)) as { entry?: Entry; entries?: Entry[] };
    const ids = (body.entries ?? (body.entry ? [body.entry] : [])).map(({ id }) => id);
    sent.push(ids);
    const given = answer(ids);
    if (given instanceof Error) throw given;
    return new Response(JSON.stringify(given.body), { status: given.status });
  });
  return sent;
}
const keep = (ids: readonly string[]) => ({
  status: 201,
  body: { placed: ids.map((id) => ({ id, seq: Number(id.at(-1)) })) },
});

let store: Store;
const record = (...entries: Entry[]) =>
  store.dispatch(recorded(entries.map((each) => ({ shopId: SHOP, entry: each }))));
const waiting = () => store.getState().outbox.waiting;

beforeEach(() => {
  store = makeStore();
  store.dispatch(signedIn(account));
});

beforeAll(() => provideArithmetic({ derive, checkEntry, isUndoable }));

test('a build’s opening goes alone, the rest together, and each entry shows once throughout', async () => {
  record(opening, ...trials);
  const sent = serve(keep);
  const before = selectReport(store.getState(), BUILD);
  expect(await postWaiting(store)).toBe('done');
  expect(sent).toEqual([[opening.id], trials.map(({ id }) => id)]);
  expect(waiting()).toEqual([]);
  expect(selectEntries(store.getState(), BUILD).map(({ seq }) => seq)).toEqual([1, 2, 3, 4]);
  expect(selectReport(store.getState(), BUILD)?.trials).toEqual(before?.trials);
});

test('one entry that the server will not take is found, kept with its reason, and holds up nobody', async () => {
  store.dispatch(received({ buildId: BUILD, entries: [{ ...opening, seq: 1 }] }));
  record(...trials);
  const bad = trials[1]?.id ?? '';
  serve((ids) => (ids.includes(bad) ? { status: 422, body: { detail: 'That cannot be.' } } : keep(ids)));
  expect(await postWaiting(store)).toBe('done');
  expect(waiting()).toEqual([{ shopId: SHOP, entry: trials[1], refused: 'That cannot be.' }]);
  // It still counts on this device: nothing typed is lost.
  expect(selectReport(store.getState(), BUILD)?.trials).toHaveLength(3);
});

test('an entry that the server fails at again and again is singled out; those behind it go, also of other builds', async () => {
  store.dispatch(received({ buildId: BUILD, entries: [{ ...opening, seq: 1 }] }));
  const elsewhere = { ...entry(5, 'trial.begun', { after: null }), buildId: '00000000-0000-4000-8000-0000000000e1' };
  record(...trials, elsewhere);
  const bad = trials[1]?.id ?? '';
  serve((ids) => (ids.includes(bad) ? { status: 500, body: { detail: 'Trouble.' } } : keep(ids)));
  const failures = new Map<string, number>();
  const rounds: string[] = [];
  while (rounds.at(-1) !== 'done' && rounds.length < 8) rounds.push(await postWaiting(store, failures));
  expect(rounds).toEqual(['unreachable', 'unreachable', 'unreachable', 'done']);
  expect(waiting()).toEqual([{ shopId: SHOP, entry: trials[1], refused: expect.stringContaining('repeatedly') }]);
});

test('a server that fails at everything gets nothing put aside: all of it waits for better times', async () => {
  store.dispatch(received({ buildId: BUILD, entries: [{ ...opening, seq: 1 }] }));
  record(...trials);
  serve(() => ({ status: 500, body: { detail: 'Trouble.' } }));
  const failures = new Map<string, number>();
  for (let round = 0; round < 10; round += 1) expect(await postWaiting(store, failures)).toBe('unreachable');
  expect(waiting().map(({ refused }) => refused)).toEqual([undefined, undefined, undefined]);
  serve(keep);
  expect(await postWaiting(store, failures)).toBe('done');
  expect(waiting()).toEqual([]);
});

test('a dead server or a lapsed sign-in leaves everything waiting', async () => {
  record(opening);
  serve(() => new TypeError('fetch failed'));
  expect(await postWaiting(store)).toBe('unreachable');
  expect(store.getState().outbox.reachable).toBe(false);
  serve(() => ({ status: 401, body: { detail: 'Sign in first.' } }));
  expect(await postWaiting(store)).toBe('signed-out');
  expect(waiting()).toHaveLength(1);
});

test('what another shop left on the device is neither shown nor sent', async () => {
  store.dispatch(recorded([{ shopId: 'shop-b', entry: opening }]));
  const sent = serve(keep);
  expect(await postWaiting(store)).toBe('done');
  expect(sent).toEqual([]);
  expect(selectReport(store.getState(), BUILD)).toBeNull();
  expect(waiting()).toHaveLength(1);
});
