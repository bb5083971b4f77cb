import { v7 as uuidv7 } from 'uuid';
import { createApi } from '../api';
import {
  PASSWORD,
  addShop,
  client,
  description,
  makeEntry,
  openApi,
  signedIn,
  workerFile,
} from '../testing/api-client';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

async function follower() {
  const { signInName, builderId } = await addShop(opened.database);
  const { setCookie } = await client(opened.api).post('/session', { signInName, password: PASSWORD });
  const cookie = setCookie.split(';')[0] ?? '';
  const id = uuidv7();
  const me = client(opened.api, cookie);
  await me.post('/builds', { entry: makeEntry('build.described', description(), id, builderId) });
  const follow = () => opened.api.request(`http://localhost/api/builds/${id}/stream`, { headers: { Cookie: cookie } });
  return { me, follow, signInName };
}

/** Reads a stream until the server ends it. */
async function toItsEnd(stream: Response): Promise<'ended'> {
  const reader = stream.body?.getReader();
  while (!(await reader?.read())?.done);
  return 'ended';
}

test('a session follows six builds at once and no more; a line that is let go makes room', async () => {
  const { follow } = await follower();
  const lines = [];
  for (let i = 0; i < 6; i += 1) lines.push(await follow());
  expect(lines.map(({ status }) => status)).toEqual(Array(6).fill(200));
  const more = await follow();
  expect(more.status).toBe(429);
  expect(((await more.json()) as { detail: string }).detail).toMatch(/Close some of them/);
  await lines[0]?.body?.cancel();
  await new Promise((done) => setTimeout(done, 50));
  const again = await follow();
  expect(again.status).toBe(200);
  for (const line of [...lines.slice(1), again]) await line.body?.cancel();
});

test('signing out ends the streams of that session, at this server and at another one', async () => {
  const { me, follow } = await follower();
  const here = await follow();
  const ended = toItsEnd(here);
  await me.del('/session');
  expect(await ended).toBe('ended');

  // A session that is ended from another device, through another server: heard of within seconds.
  const second = await follower();
  const there = createApi(opened.database, { workerFile: workerFile() });
  const elsewhere = await signedIn(there, second.signInName);
  const line = toItsEnd(await second.follow());
  await elsewhere.del('/sessions');
  expect(await line).toBe('ended');
  await there.close();
});
