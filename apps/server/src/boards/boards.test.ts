import { v7 as uuidv7 } from 'uuid';
import { addShop, client, description, makeEntry, openApi, signedIn } from '../testing/api-client';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

async function someShop() {
  const { signInName, builderId } = await addShop(opened.database);
  const me = await signedIn(opened.api, signInName);
  const buildId = uuidv7();
  await me.post('/builds', { entry: makeEntry('build.described', description('Board four'), buildId, builderId) });
  return { me, builderId, buildId };
}

/** What a television without a sign-in gets. */
async function look(token: string, version = '') {
  const answer = await opened.api.request(`http://localhost/api/board?version=${encodeURIComponent(version)}`, {
    headers: { Authorization: `Bearer ${token}` },
  });
  return { status: answer.status, json: (await answer.json()) as { version: string; screen?: { board: unknown } } };
}

test('a screen without a sign-in follows the build that it was given, and nothing after its link was taken back', async () => {
  const { me, builderId, buildId } = await someShop();
  const { id, token } = (await me.post('/boards', { name: 'Over the dyno' })).json;
  expect(token).toMatch(/^([a-z2-9]{4}-){3}[a-z2-9]{4}$/);
  expect(await look(token)).toMatchObject({
    status: 200,
    json: { screen: { name: 'Over the dyno', shopName: 'Test shop', board: null } },
  });

  expect((await me.put(`/boards/${id}`, { buildId })).status).toBe(200);
  const first = await look(token.toUpperCase().replaceAll('-', ' '));
  expect(first.json.screen?.board).toMatchObject({ name: 'Board four', station: 'prepare', last: null });
  // Nothing has changed: a few bytes say so.
  expect((await look(token, first.json.version)).json).toEqual({ version: first.json.version });

  await me.post(`/builds/${buildId}/entries`, {
    entries: [makeEntry('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 }, buildId, builderId)],
  });
  const second = await look(token, first.json.version);
  expect(second.json.screen?.board).toMatchObject({ station: 'zero' });
  expect((await me.get('/boards')).json.boards).toMatchObject([
    { id, name: 'Over the dyno', buildId, buildName: 'Board four', seenAt: expect.any(String) },
  ]);

  expect((await me.del(`/boards/${id}`)).status).toBe(200);
  expect(await look(token, second.json.version)).toMatchObject({ status: 410 });
});

test('a link opens its board alone, and no other shop touches it', async () => {
  const [mine, theirs] = [await someShop(), await someShop()];
  const { id, token } = (await mine.me.post('/boards', { name: 'Mine' })).json;
  expect((await theirs.me.put(`/boards/${id}`, { buildId: theirs.buildId })).status).toBe(404);
  expect((await theirs.me.del(`/boards/${id}`)).status).toBe(404);
  expect((await mine.me.put(`/boards/${id}`, { buildId: theirs.buildId })).status).toBe(404);
  expect((await theirs.me.get('/boards')).json.boards).toEqual([]);
  expect((await look('nosuchtokenhere22')).status).toBe(410);
  expect((await look('')).status).toBe(410);
  const answer = await opened.api.request(`http://localhost/api/builds/${mine.buildId}/entries`, {
    headers: { Authorization: `Bearer ${token}` },
  });
  expect(answer.status).toBe(401);
  expect((await client(opened.api).get('/boards')).status).toBe(401);

  expect((await mine.me.post('/boards', { name: ' ' })).status).toBe(422);
  for (let more = 1; more < 20; more += 1) await mine.me.post('/boards', { name: `Screen ${more}` });
  expect((await mine.me.post('/boards', { name: 'One too many' })).json.detail).toContain('at most 20');
});
