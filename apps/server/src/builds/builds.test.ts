import { eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { kestrelPointSix } from '../demo/builds';
import { build, entry } from '../db/schema';
import { addShop, client, description, makeEntry, openApi, signedIn, upToDate } from '../testing/api-client';
import { renewSummary } from './summary';

type Opened = Awaited<ReturnType<typeof openApi>>;
type Client = ReturnType<typeof client>;

let opened: Opened;
let mine: Awaited<ReturnType<typeof addShop>>;
let theirs: Awaited<ReturnType<typeof addShop>>;
let me: Client;
let them: Client;

beforeAll(async () => {
  opened = await openApi();
  mine = await addShop(opened.database);
  theirs = await addShop(opened.database);
  me = await signedIn(opened.api, mine.signInName);
  them = await signedIn(opened.api, theirs.signInName);
});
afterAll(() => opened.close());

async function newBuild(): Promise<string> {
  const id = uuidv7();
  const answer = await me.post('/builds', {
    entry: makeEntry('build.described', description(), id, mine.builderId),
  });
  expect(answer.status).toBe(201);
  return id;
}

const trial = (buildId: string, builderId = mine.builderId) =>
  makeEntry('trial.begun', { after: null }, buildId, builderId);

const countEntries = async (buildId: string): Promise<number> => {
  const [row] = await opened.database.db
    .select({ count: sql<number>`count(*)` })
    .from(entry)
    .where(eq(entry.buildId, buildId));
  return Number(row?.count);
};

describe('the logbook on the server', () => {
  test('keeps a whole build, and says the same of it as the core', async () => {
    const pen = { nextId: uuidv7, builderId: mine.builderId, startedAt: new Date('2026-02-01T08:00:00Z') };
    const [first, ...rest] = kestrelPointSix(pen);
    const id = first?.buildId ?? '';
    await me.post('/builds', { entry: first });
    const posted = await me.post(`/builds/${id}/entries`, { entries: rest });
    expect(posted.json.placed.map((each: { seq: number }) => each.seq)).toEqual(rest.map((_, at) => at + 2));

    const read = await me.get(`/builds/${id}/entries`);
    const bare = read.json.entries.map((each: Record<string, unknown>) => {
      const { seq, receivedAt, ...fact } = each;
      expect(seq && receivedAt).toBeTruthy();
      return fact;
    });
    expect(bare).toEqual([first, ...rest]);

    const { report } = (await me.get(`/builds/${id}/report`)).json;
    expect(report.verdict).toMatchObject({ kind: 'leave', headline: 'The cam sits 0.4° late, retarded, ±0.7°.' });
    const listed = (await upToDate(me)).find((each) => each.id === id);
    expect(listed).toMatchObject({
      verdictKind: 'leave',
      place: 'decide',
      headline: 'The cam sits 0.4° late, retarded, ±0.7°.',
      delta: expect.closeTo(-0.35, 1),
    });
  });

  test('posting twice is harmless; the same id with other contents is refused', async () => {
    const id = await newBuild();
    const one = trial(id);
    const first = await me.post(`/builds/${id}/entries`, { entries: [one] });
    const again = await me.post(`/builds/${id}/entries`, { entries: [one, one] });
    expect([first.json.placed[0].seq, again.json.placed[0].seq, again.json.placed[1].seq]).toEqual([2, 2, 2]);
    const changed = await me.post(`/builds/${id}/entries`, { entries: [{ ...one, body: { after: null, note: 'x' } }] });
    expect(changed.status).toBe(409);
    expect(await countEntries(id)).toBe(2);
  });

  test('numbers entries without gaps however many arrive at once', async () => {
    const id = await newBuild();
    const answers = await Promise.all(
      Array.from({ length: 24 }, () => me.post(`/builds/${id}/entries`, { entries: [trial(id)] })),
    );
    expect(answers.map(({ status }) => status)).toEqual(Array(24).fill(201));
    const seqs = answers.map(({ json }) => json.placed[0].seq).sort((a: number, b: number) => a - b);
    expect(seqs).toEqual(Array.from({ length: 24 }, (_, at) => at + 2));
  });

  test('keeps the longest trace point by point, and refuses a longer one whole', async () => {
    const id = await newBuild();
    const begun = trial(id);
    const trace = (points: number) =>
      makeEntry(
        'trace.recorded',
        {
          setting: null,
          trial: begun.id,
          cylinder: 1,
          valve: 'intake',
          sitsOn: 'lifter',
          approach: 'forward',
          source: 'file',
          counted: 'anyhow',
          points: Array.from({ length: points }, (_, i): [number, number] => [i / 10, (i % 8382) / 1001]),
        },
        id,
        mine.builderId,
      );
    const longest = trace(7200);
    expect((await me.post(`/builds/${id}/entries`, { entries: [begun, longest] })).status).toBe(201);
    const kept = (await me.get(`/builds/${id}/entries`)).json.entries.find(
      (each: { id: string }) => each.id === longest.id,
    );
    expect(kept.body).toEqual(longest.body);
    const longer = await me.post(`/builds/${id}/entries`, { entries: [trace(7201)] });
    expect(longer.json.fields[0]).toMatchObject({ message: expect.stringMatching(/at most 7200 points/) });
    expect(await countEntries(id)).toBe(3);
  });

  test('is all or nothing', async () => {
    const id = await newBuild();
    const good = trial(id);
    const mixed = await me.post(`/builds/${id}/entries`, {
      entries: [good, makeEntry('entry.voided', { voids: 'not an id' }, id, mine.builderId)],
    });
    expect(mixed).toMatchObject({ status: 422, type: 'application/problem+json' });
    expect(mixed.json.fields[0].field).toBe('entries[1].body.voids');
    expect(await countEntries(id)).toBe(1);
  });

  test('only what is new is sent to a device that knows the rest', async () => {
    const id = await newBuild();
    await me.post(`/builds/${id}/entries`, { entries: [trial(id), trial(id)] });
    const news = await me.get(`/builds/${id}/entries?after=2`);
    expect(news.json.entries.map((each: { seq: number }) => each.seq)).toEqual([3]);
    expect((await me.get(`/builds/${id}/entries?after=-1`)).status).toBe(422);
  });

  test('summaries can be made anew from the entries', async () => {
    const id = await newBuild();
    await opened.database.db.update(build).set({ name: 'spoilt', summarySeq: 0 }).where(eq(build.id, id));
    await renewSummary(opened.database.db, id);
    const [row] = await opened.database.db.select().from(build).where(eq(build.id, id));
    expect(row).toMatchObject({ name: 'Test four', summarySeq: 1 });
  });
});

describe('shops are closed to one another', () => {
  test('another shop’s build does not exist', async () => {
    const id = await newBuild();
    expect((await them.get(`/builds/${id}/entries`)).status).toBe(404);
    expect((await them.get(`/builds/${id}/report`)).status).toBe(404);
    expect((await them.get('/builds')).json.builds).toEqual([]);
    const posted = await them.post(`/builds/${id}/entries`, { entries: [trial(id, theirs.builderId)] });
    expect(posted.status).toBe(404);
    expect(posted.json.detail).toMatch(/no such build in your shop/);
    const opening = makeEntry('build.described', description('Stolen'), id, theirs.builderId);
    expect((await them.post('/builds', { entry: opening })).status).toBe(409);
    expect(await countEntries(id)).toBe(1);
  });

  test('nobody writes in the name of another shop’s builder, or into another build than addressed', async () => {
    const id = await newBuild();
    const forged = await me.post(`/builds/${id}/entries`, { entries: [trial(id, theirs.builderId)] });
    expect(forged.status).toBe(403);
    const strayed = await me.post(`/builds/${id}/entries`, { entries: [trial(uuidv7())] });
    expect(strayed.status).toBe(422);
    expect(await countEntries(id)).toBe(1);
  });
});

describe('what is malformed is refused, by name', () => {
  const reading = (id: string, wheel: unknown) => ({
    ...makeEntry(
      'zero.reading',
      {
        zero: uuidv7(),
        setting: null,
        pass: uuidv7(),
        side: 'before',
        wheel: { ring: '0-180', shows: 1, side: 'after' },
      },
      id,
      mine.builderId,
    ),
    body: { zero: uuidv7(), setting: null, pass: uuidv7(), side: 'before', wheel },
  });

  test.each([
    ['-1 on a 0–360 ring', { ring: '0-360', sense: 'rising', shows: -1 }, /has no −1/],
    ['361 on a 0–360 ring', { ring: '0-360', sense: 'rising', shows: 361 }, /has no 361/],
    ['95 on a quadrant ring', { ring: '0-90', shows: 95, side: 'after-bdc' }, /has no 95/],
    ['a side that the ring lacks', { ring: '0-180', shows: 9, side: 'after-bdc' }, /side/],
  ])('%s', async (_what, wheel, words) => {
    const id = await newBuild();
    const answer = await me.post(`/builds/${id}/entries`, { entries: [reading(id, wheel)] });
    expect(answer.status).toBe(422);
    expect(`${answer.json.fields[0].field} ${answer.json.detail}`).toMatch(words);
    expect(await countEntries(id)).toBe(1);
  });

  test('an empty card, an unknown kind, an unknown field, an impossible engine', async () => {
    const id = await newBuild();
    const base = trial(id);
    for (const [changed, words] of [
      [{ ...base, kind: 'card.entered', body: { replaces: null, intake: {} } }, /no figures/],
      [{ ...base, kind: 'valve.bent', body: {} }, /unknown kind/],
      [{ ...base, colour: 'red' }, /colour: no such field/],
      [
        {
          ...base,
          kind: 'build.described',
          body: { ...description(), engine: { ...description().engine, firingOrder: [1, 3, 3, 2] } },
        },
        /stands twice/,
      ],
    ] as const) {
      const answer = await me.post(`/builds/${id}/entries`, { entries: [changed] });
      expect(answer.status).toBe(422);
      expect(answer.json.detail).toMatch(words);
    }
    expect(await countEntries(id)).toBe(1);
  });

  test('what is no JSON, too large, too many, or from another page', async () => {
    const id = await newBuild();
    expect((await me.post(`/builds/${id}/entries`, '{"entries": [')).status).toBe(400);
    const large = await me.post(`/builds/${id}/entries`, `{"entries": "${'x'.repeat(600_000)}"}`);
    expect(large).toMatchObject({ status: 413, type: 'application/problem+json' });
    const many = await me.post(`/builds/${id}/entries`, { entries: Array.from({ length: 201 }, () => trial(id)) });
    expect(many.json.detail).toMatch(/at most 200/);
    const elsewhere = await opened.api.request(`http://localhost/api/builds/${id}/entries`, {
      method: 'POST',
      headers: { 'Content-Type': 'text/plain', Origin: 'http://elsewhere.test' },
      body: '{}',
    });
    expect(elsewhere.status).toBe(403);
    expect((await me.get('/nowhere')).type).toBe('application/problem+json');
    expect(await countEntries(id)).toBe(1);
  });
});
