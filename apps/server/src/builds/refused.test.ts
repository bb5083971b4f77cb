import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@yosoku/core/record/entry';
import { writeBuildFile } from '@yosoku/core/record/file';
import { larkMillEight } from '../demo/signed-build';
import { addShop, addTestBuilder, type client, description, makeEntry, openApi, signedIn } from '../testing/api-client';

type Client = ReturnType<typeof client>;
let opened: Awaited<ReturnType<typeof openApi>>;
let mine: Awaited<ReturnType<typeof addShop>>;
let me: Client;
/** Another builder of the same shop. */
let other: { readonly id: string; readonly who: Client };
beforeAll(async () => {
  opened = await openApi();
  mine = await addShop(opened.database);
  me = await signedIn(opened.api, mine.signInName);
  const signInName = `o${mine.signInName}`;
  const id = await addTestBuilder(opened.database, mine.shopId, 'builder', signInName);
  other = { id, who: await signedIn(opened.api, signInName) };
});
afterAll(() => opened.close());

const STRANGER = uuidv7();
const logbook = (builderId = STRANGER): Entry[] =>
  larkMillEight({ nextId: uuidv7, builderId, startedAt: new Date('2026-03-01T08:00:00Z') });
const fileOf = (entries: readonly Entry[]): string => writeBuildFile(entries, []);
const count = async (id: string): Promise<number> => (await me.get(`/builds/${id}/entries`)).json.entries.length;
async function newBuild(): Promise<string> {
  const id = uuidv7();
  await me.post('/builds', { entry: makeEntry('build.described', description(), id, mine.builderId) });
  return id;
}

test.each([
  [
    'half an emoji in a note',
    (one: Entry) => ({ ...one, body: { after: null, note: 'Lap 👍'.slice(0, 5) } }),
    /half a character/,
  ],
  ['a time in the year 0', (one: Entry) => ({ ...one, takenAt: '0000-03-14T09:26:53Z' }), /between the years/],
  ['a time after 2199', (one: Entry) => ({ ...one, takenAt: '9999-03-14T09:26:53Z' }), /between the years/],
  ['an id in capitals', (one: Entry) => ({ ...one, id: one.id.toUpperCase() }), /small letters/],
])('%s is refused with what was expected, and holds up nothing', async (_what, spoil, words) => {
  const id = await newBuild();
  const trial = makeEntry('trial.begun', { after: null }, id, mine.builderId);
  const answer = await me.post(`/builds/${id}/entries`, { entries: [spoil(trial)] });
  expect(answer.status).toBe(422);
  expect(answer.json.detail).toMatch(words);
  expect((await me.post(`/builds/${id}/entries`, { entries: [trial] })).status).toBe(201);
});

test('ids in capitals are refused wherever they come in', async () => {
  const id = await newBuild();
  const upper = uuidv7().toUpperCase();
  const trial = makeEntry('trial.begun', { after: null }, id, mine.builderId);
  expect((await me.post(`/builds/${id.toUpperCase()}/entries`, { entries: [trial] })).status).toBe(422);
  expect((await me.post('/import', fileOf(logbook()).replaceAll(STRANGER, upper))).status).toBe(422);
  const piece = { id: upper, name: 'Gear', hardware: { kind: 'tooth-jump', teeth: 42 } };
  expect((await me.put('/hardware', piece)).status).toBe(422);
});

test('who signs is who is signed in, and the server’s clock stands beside the device’s', async () => {
  const entries = logbook(mine.builderId);
  const signature = entries.at(-1);
  const id = entries[0]?.buildId ?? '';
  if (signature?.kind !== 'build.signed') throw new Error('the demo build is signed');
  await me.post('/import', fileOf(entries.slice(0, -1)));
  const forged = await other.who.post(`/builds/${id}/entries`, { entries: [signature] });
  expect(forged).toMatchObject({ status: 403, json: { detail: expect.stringMatching(/Only who is signed in signs/) } });
  const posted = await me.post(`/builds/${id}/entries`, { entries: [signature] });
  expect(posted.status).toBe(201);
  const { report } = (await me.get(`/builds/${id}/report`)).json;
  expect(report.sign.signed.at).toMatch(/^2026-03-/);
  expect(Math.abs(new Date(report.sign.signed.received).getTime() - Date.now())).toBeLessThan(60_000);
});

test('a file brings no signature of another builder of this shop; of other shops it does', async () => {
  const forged = await me.post('/import', fileOf(logbook(other.id)));
  expect(forged).toMatchObject({
    status: 403,
    json: { detail: expect.stringMatching(/in the name of Second builder/) },
  });
  expect((await me.post('/import', fileOf(logbook(mine.builderId)))).status).toBe(201);
  expect((await me.post('/import', fileOf(logbook()))).status).toBe(201);
});

test('an entry that was sent under another sign-in says so', async () => {
  const id = await newBuild();
  const trial = makeEntry('trial.begun', { after: null }, id, other.id);
  expect((await me.post(`/builds/${id}/entries`, { entries: [trial] })).status).toBe(201);
  const kept = (await me.get(`/builds/${id}/entries`)).json.entries;
  expect(kept.map((each: Entry) => each.postedBy)).toEqual([undefined, mine.builderId]);
});

test('nothing is brought into a signed build, not even by a file that shares no entry with it', async () => {
  const entries = logbook();
  const id = entries[0]?.buildId ?? '';
  await me.post('/import', fileOf(entries));
  const stranger = makeEntry('build.described', description('Quite another'), id, STRANGER);
  const late = { ...stranger, takenAt: '2027-01-01T00:00:00.000Z' };
  const answer = await me.post('/import', fileOf([late]));
  expect(answer).toMatchObject({ status: 409, json: { detail: expect.stringMatching(/signed\. Reopen it/) } });
  expect(await count(id)).toBe(entries.length);
});

test('six imports at the same moment all come through: of one file once, of six files six times', async () => {
  const one = logbook();
  const same = await Promise.all(Array.from({ length: 6 }, () => me.post('/import', fileOf(one))));
  expect(same.map(({ status }) => status)).toEqual(Array(6).fill(201));
  expect(await count(one[0]?.buildId ?? '')).toBe(one.length);
  const many = Array.from({ length: 6 }, () => logbook());
  const all = await Promise.all(many.map((entries) => me.post('/import', fileOf(entries))));
  expect(all.map(({ status }) => status)).toEqual(Array(6).fill(201));
});

test('a file with more points than is worked through is refused in words, and a build that grew so is kept', async () => {
  const id = uuidv7();
  const opening = makeEntry('build.described', description('Far too much'), id, STRANGER);
  const trial = makeEntry('trial.begun', { after: null }, id, STRANGER);
  const trace = (): Entry =>
    makeEntry(
      'trace.recorded',
      {
        setting: null,
        trial: trial.id,
        cylinder: 1,
        valve: 'intake',
        sitsOn: 'lifter',
        approach: 'forward',
        source: 'file',
        counted: 'anyhow',
        points: Array.from({ length: 7200 }, (_, i): [number, number] => [i / 10, 1]),
      },
      id,
      STRANGER,
    );
  const file = fileOf([opening, trial, ...Array.from({ length: 36 }, trace)]);
  const answer = await me.post('/import', file);
  expect(answer).toMatchObject({
    status: 422,
    json: { detail: expect.stringMatching(/259200 points in all; at most 250000/) },
  });
  expect((await me.get(`/builds/${id}/entries`)).status).toBe(404);
});
