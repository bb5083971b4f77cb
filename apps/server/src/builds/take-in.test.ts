import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@yosoku/core/record/entry';
import { writeBuildFile } from '@yosoku/core/record/file';
import { readBuildFile } from '@yosoku/core/record/read-file';
import { derive } from '@yosoku/core/report/report';
import { larkMillEight } from '../demo/signed-build';
import { NINE_KEYWAYS, PIECES } from '../demo/shelf';
import { addShop, client, makeEntry, openApi, signedIn, upToDate } from '../testing/api-client';

type Client = ReturnType<typeof client>;
let opened: Awaited<ReturnType<typeof openApi>>;
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

const STRANGER = uuidv7();
const logbook = (builderId = STRANGER): Entry[] =>
  larkMillEight({ nextId: uuidv7, builderId, startedAt: new Date('2026-03-01T08:00:00Z') });
const fileOf = (entries: readonly Entry[]): string => writeBuildFile(entries, [{ id: STRANGER, name: 'Ida Fern' }]);
const read = async (who: Client, id: string): Promise<Entry[]> => (await who.get(`/builds/${id}/entries`)).json.entries;
/** Without what the server adds of itself. */
const bare = (entries: readonly Entry[]): Entry[] =>
  entries.map(({ seq: _seq, receivedAt: _received, postedBy: _sent, ...fact }) => fact as Entry);

describe('a build file taken in', () => {
  test('whole, with the names of those who wrote it; read back it is the same build', async () => {
    const entries = logbook();
    const taken = await me.post('/import', fileOf(entries));
    expect(taken).toMatchObject({ status: 201, json: { buildId: entries[0]?.buildId, name: 'Lark Mill eight' } });
    const { builders } = (await me.get(`/builds/${taken.json.buildId}/builders`)).json;
    expect(builders).toEqual([{ id: STRANGER, name: 'Ida Fern' }]);
    const kept = await read(me, taken.json.buildId);
    // Out of one shop into a file and back: the same Report.
    const again = readBuildFile(writeBuildFile(kept, builders));
    expect(again.ok && derive(bare(again.file.entries))).toEqual(derive(entries));
    // And it says what it was sent by: nobody of this shop wrote it.
    expect(kept.every(({ postedBy }) => postedBy === mine.builderId)).toBe(true);
    expect(derive(kept)?.sheet.find(({ title }) => title === 'Sent by somebody else')?.rows[0]?.value).toBe(
      String(entries.length),
    );
    // Once more is harmless: it is all there.
    expect((await me.post('/import', fileOf(entries))).json.placed).toEqual([]);
    expect(await read(me, taken.json.buildId)).toHaveLength(entries.length);
  });

  test('of another shop: a copy of its own, and theirs is not touched', async () => {
    const entries = logbook();
    await them.post('/import', fileOf(entries));
    const { status, json } = await me.post('/import', fileOf(entries));
    expect(status).toBe(201);
    expect(json.buildId).not.toBe(entries[0]?.buildId);
    const { build: _mine, ...report } = derive(bare(await read(me, json.buildId))) ?? {};
    const { build: _theirs, ...before } = derive(entries) ?? {};
    expect(report).toEqual(before);
    expect((await me.get(`/builds/${entries[0]?.buildId}/entries`)).status).toBe(404);
    expect((await read(them, entries[0]?.buildId ?? '')).length).toBe(entries.length);
  });

  test.each([
    ['cut short', (text: string) => text.slice(0, text.length / 2), 422, /cut short/],
    ['of a newer version', (text: string) => text.replace('"version": 1', '"version": 7'), 422, /version 7, newer/],
    ['no build file', () => '{"hello": "there"}', 422, /format/],
    [
      'with a figure that cannot be',
      (text: string) => text.replace('"cylinders": 8', '"cylinders": 800'),
      422,
      /cylinders/,
    ],
    ['of 50 MB', () => 'x'.repeat(50 * 1024 * 1024), 413, /larger than 16 MB/],
  ])('%s: refused, and nothing of it is taken', async (_what, spoil, status, says) => {
    const entries = logbook();
    const answer = await me.post('/import', spoil(fileOf(entries)));
    expect(answer.status).toBe(status);
    expect(answer.json.detail).toMatch(says);
    expect((await me.get(`/builds/${entries[0]?.buildId}/entries`)).status).toBe(404);
  });

  test('an entry that is here with other contents spoils the whole file', async () => {
    const entries = logbook();
    await me.post('/import', fileOf(entries.slice(0, 10)));
    const changed = entries.map((entry, at) => (at === 5 ? { ...entry, takenAt: '2026-03-02T08:00:00.000Z' } : entry));
    expect((await me.post('/import', fileOf(changed))).status).toBe(409);
    expect(await read(me, entries[0]?.buildId ?? '')).toHaveLength(10);
  });

  test('nobody who is not signed in takes anything in', async () => {
    expect((await client(opened.api).post('/import', fileOf(logbook()))).status).toBe(401);
  });
});

describe('a signed build', () => {
  async function signedBuild(): Promise<{ id: string; signature: Entry }> {
    const entries = logbook();
    const { json } = await me.post('/import', fileOf(entries));
    const signature = entries.at(-1);
    if (signature?.kind !== 'build.signed') throw new Error('the demo build is signed');
    return { id: json.buildId, signature };
  }
  const later = '2027-01-01T00:00:00.000Z';

  test('takes nothing, on either way of writing, until it is reopened with a reason', async () => {
    const { id, signature } = await signedBuild();
    const trial = { ...makeEntry('trial.begun', { after: null }, id, mine.builderId), takenAt: later };
    for (let tries = 0; tries < 2; tries += 1) {
      const refused = await me.post(`/builds/${id}/entries`, { entries: [trial] });
      expect(refused.status).toBe(409);
      expect(refused.json.detail).toMatch(/signed and closed\. Reopen it with a reason/);
    }
    const reopened = {
      ...makeEntry('build.reopened', { signature: signature.id, reason: 'Ticks at idle.' }, id, mine.builderId),
      takenAt: later,
    };
    expect((await me.post(`/builds/${id}/entries`, { entries: [reopened, trial] })).status).toBe(201);
    expect((await me.post(`/builds/${id}/entries`, { entries: [{ ...trial, id: uuidv7() }] })).status).toBe(201);
    expect((await me.get(`/builds/${id}/report`)).json.report.sign.closed).toBe(false);
    const listed = await upToDate(me);
    expect(listed.find((each) => each.id === id)?.headline).not.toMatch(/^Signed/);
    expect(
      listed.filter(({ headline }) => headline.startsWith('Signed by Mara Quill. The cam sits')).length,
    ).toBeGreaterThan(0);
  });

  test('keeps what had been taken before it was signed and arrives afterwards, and marks it', async () => {
    const { id } = await signedBuild();
    const old = {
      ...makeEntry('trial.begun', { after: null }, id, mine.builderId),
      takenAt: '2026-02-28T08:00:00.000Z',
    };
    expect((await me.post(`/builds/${id}/entries`, { entries: [old] })).status).toBe(201);
    const { report } = (await me.get(`/builds/${id}/report`)).json;
    expect(report.sign.closed).toBe(true);
    expect(report.trials).toHaveLength(2);
    expect(report.problems.find((each: { entries: string[] }) => each.entries.includes(old.id)).message).toMatch(
      /after the signature/,
    );
  });

  test('is printed by those whose it is', async () => {
    const { id } = await signedBuild();
    const cookie = (
      await client(opened.api).post('/session', { signInName: mine.signInName, password: 'a-long-test-password' })
    ).setCookie.split(';')[0];
    const pdf = (what: string) =>
      opened.api.request(`http://localhost/api/builds/${id}/${what}`, { headers: { Cookie: cookie ?? '' } });
    const get = (paper: string) => pdf(`sheet.pdf?paper=${paper}`);
    const answer = await get('letter');
    expect(answer.headers.get('content-type')).toBe('application/pdf');
    expect(
      Buffer.from(await answer.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    expect((await get('napkin')).status).toBe(422);
    expect((await pdf(`pistons.pdf?angles=${encodeURIComponent('−15, 0, 15')}`)).status).toBe(200);
    expect((await pdf('pistons.pdf?angles=500')).status).toBe(422);
    expect((await pdf('pistons.pdf')).status).toBe(422);
    expect((await them.get(`/builds/${id}/pistons.pdf?angles=0`)).status).toBe(404);
    expect((await them.get(`/builds/${id}/sheet.pdf`)).status).toBe(404);
    // True to scale: of this build, or of none.
    const wheel = await pdf('paper.pdf?what=wheel&diameter=180&places=all');
    expect(wheel.headers.get('content-type')).toBe('application/pdf');
    expect((await wheel.arrayBuffer()).byteLength).toBeGreaterThan(20_000);
    const refused = await pdf('paper.pdf?what=wheel&diameter=9000');
    expect(refused.status).toBe(422);
    expect(((await refused.json()) as { detail: string }).detail).toMatch(/at most 1200 mm/);
    expect((await them.get(`/builds/${id}/paper.pdf?what=check`)).status).toBe(404);
    const anywhere = (headers: Record<string, string>) =>
      opened.api.request('http://localhost/api/paper.pdf?what=tape&round=600', { headers });
    expect((await anywhere({})).status).toBe(401);
    expect((await anywhere({ Cookie: cookie ?? '' })).status).toBe(200);
  });
});

describe('the shelf', () => {
  const piece = (more: object = {}) => ({ id: uuidv7(), name: 'Gear', hardware: NINE_KEYWAYS, ...more });

  test('a piece is kept, corrected, taken off; other shops neither see nor change it', async () => {
    const gear = piece();
    expect((await me.put('/hardware', gear)).status).toBe(200);
    expect((await me.put('/hardware', { ...gear, name: 'Gear, nine ways' })).status).toBe(200);
    const listed = async (who: Client) =>
      (await who.get('/hardware')).json.pieces.filter(({ id }: { id: string }) => id === gear.id);
    expect(await listed(me)).toMatchObject([{ name: 'Gear, nine ways', hardware: NINE_KEYWAYS, experience: [] }]);
    expect(await listed(them)).toEqual([]);
    expect((await them.put('/hardware', gear)).status).toBe(409);
    expect((await them.del(`/hardware/${gear.id}`)).status).toBe(404);
    expect((await me.del(`/hardware/${gear.id}`)).status).toBe(200);
    expect(await listed(me)).toEqual([]);
  });

  test('what cannot be is refused with what to do', async () => {
    const wrong = await me.put('/hardware', piece({ hardware: { kind: 'tooth-jump', teeth: 0 } }));
    expect(wrong).toMatchObject({
      status: 422,
      json: { detail: expect.stringMatching(/hardware\.teeth.*at least 8/) },
    });
    expect((await me.put('/hardware', piece({ name: ' ' }))).status).toBe(422);
  });

  test('cards and wheels that the shop has used stand there by themselves, each once; not those of others, nor what was undone', async () => {
    const own = await addShop(opened.database);
    const who = await signedIn(opened.api, own.signInName);
    expect((await who.get('/shelves')).json).toEqual({ cards: [], wheels: [] });
    const shelves = async () => (await who.get('/shelves')).json as { cards: { name: string }[]; wheels: object[] };
    const { json } = await who.post('/import', fileOf(logbook()));
    const { cards, wheels } = await shelves();
    expect(cards.map(({ name }) => name)).toContain('Lark 250-108');
    expect(wheels).toHaveLength(1);
    expect((await who.post('/import', fileOf(logbook()))).status).toBe(201);
    expect(await shelves()).toEqual({ cards, wheels });
    expect((await client(opened.api).get('/shelves')).status).toBe(401);
    expect(json.buildId).toBeDefined();
  });

  test('remembers what a piece gave on the engines of the shop', async () => {
    const shop = await addShop(opened.database);
    const who = await signedIn(opened.api, shop.signInName);
    const entries = logbook();
    await who.post('/import', fileOf(entries));
    // The demo’s own piece may be on another shelf here: one of this shop’s stands for it.
    const own = uuidv7();
    await who.put('/hardware', piece({ id: own }));
    const text = fileOf(logbook()).replaceAll(PIECES.keyways, own);
    await who.post('/import', text);
    await upToDate(who);
    const [gear] = (await who.get('/hardware')).json.pieces;
    expect(gear).toMatchObject({ id: own, experience: [{ from: { mark: '0' }, to: { mark: '+4' } }] });
    expect(gear.experience[0].gave).toBeCloseTo(3.5, 1);
  });
});
