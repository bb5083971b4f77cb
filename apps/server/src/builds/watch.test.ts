import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@yosoku/core/record/entry';
import { createApi } from '../api';
import {
  addShop,
  client,
  description,
  makeEntry,
  openApi,
  PASSWORD,
  signedIn,
  workerFile,
} from '../testing/api-client';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

/** Listens to a build as a browser does; `next` waits for the next entries. */
async function listen(api: ReturnType<typeof createApi>, cookie: string, path: string, last?: string) {
  const answer = await api.request(`http://localhost/api${path}`, {
    headers: { Cookie: cookie, ...(last === undefined ? {} : { 'Last-Event-ID': last }) },
  });
  const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  return {
    status: answer.status,
    type: answer.headers.get('content-type') ?? '',
    next: async (): Promise<Entry[]> => {
      for (;;) {
        const message = /data: (\[.*\])\nid: \d+\n\n/.exec(text) ?? /id: \d+\ndata: (\[.*\])\n\n/.exec(text);
        if (message) {
          text = text.slice(text.indexOf(message[0]) + message[0].length);
          return JSON.parse(message[1] ?? '[]');
        }
        const read = await reader?.read();
        if (!read || read.done) throw new Error('the stream ended');
        text += read.value;
      }
    },
    close: () => reader?.cancel(),
  };
}

test('two devices on one build, each at a server of its own: both are told of what the other writes', async () => {
  const { signInName, builderId } = await addShop(opened.database);
  const [here, there] = [opened.api, createApi(opened.database, { workerFile: workerFile() })];
  const me = await signedIn(here, signInName);
  const other = await signedIn(there, signInName);
  const { setCookie } = await client(here).post('/session', { signInName, password: PASSWORD });
  const cookie = setCookie.split(';')[0] ?? '';
  const id = uuidv7();
  await me.post('/builds', { entry: makeEntry('build.described', description(), id, builderId) });

  const first = await listen(here, cookie, `/builds/${id}/stream?after=0`);
  expect([first.status, first.type]).toEqual([200, 'text/event-stream']);
  expect((await first.next()).map(({ seq }) => seq)).toEqual([1]);
  const second = await listen(there, cookie, `/builds/${id}/stream?after=1`);
  const trial = makeEntry('trial.begun', { after: null }, id, builderId);
  await other.post(`/builds/${id}/entries`, { entries: [trial] });
  expect(await first.next()).toMatchObject([{ id: trial.id, seq: 2 }]);
  expect(await second.next()).toMatchObject([{ id: trial.id, seq: 2 }]);

  // Gone for a while: what was missed comes first, by what it had last.
  await first.close();
  const more = makeEntry('trial.begun', { after: trial.id }, id, builderId);
  await me.post(`/builds/${id}/entries`, { entries: [more] });
  const back = await listen(here, cookie, `/builds/${id}/stream?after=0`, '2');
  expect((await back.next()).map((entry) => entry.id)).toEqual([more.id]);
  await Promise.all([back.close(), second.close()]);
  await there.close();
});

test('nobody listens to the build of another shop, or without a sign-in', async () => {
  const [mine, theirs] = [await addShop(opened.database), await addShop(opened.database)];
  const id = uuidv7();
  await (
    await signedIn(opened.api, mine.signInName)
  ).post('/builds', { entry: makeEntry('build.described', description(), id, mine.builderId) });
  const them = await signedIn(opened.api, theirs.signInName);
  expect((await them.get(`/builds/${id}/stream`)).status).toBe(404);
  expect((await client(opened.api).get(`/builds/${id}/stream`)).status).toBe(401);
});
