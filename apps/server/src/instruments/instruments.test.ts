import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { type ServerType, serve } from '@hono/node-server';
import { WebSocket, WebSocketServer } from 'ws';
import { type Heard, SILENT, hear, steadyOf } from '@yosoku/core/instruments/hear';
import { parseLine } from '@yosoku/core/instruments/line';
import { USUAL_BOX, makeBenchBox } from '@yosoku/core/simulation/bench-box';
import { makeRandom } from '@yosoku/core/statistics/random';
import { PASSWORD, addShop, client, openApi, signedIn } from '../testing/api-client';
import { LARGEST_MESSAGE, makeExchange } from './exchange';

let opened: Awaited<ReturnType<typeof openApi>>;
let server: ServerType;
let host: string;
const open = new Set<WebSocket>();
beforeAll(async () => {
  opened = await openApi();
  const sockets = new WebSocketServer({ noServer: true, maxPayload: LARGEST_MESSAGE });
  server = serve({ fetch: opened.api.fetch, port: 0, hostname: '127.0.0.1', websocket: { server: sockets } });
  await once(server, 'listening');
  host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(() => {
  for (const socket of open) socket.terminate();
  open.clear();
});
afterAll(async () => {
  await new Promise((done) => server.close(done));
  await opened.close();
});

/** A line to the server: what it said, and how it ended. */
function line(path: string, headers: Readonly<Record<string, string>>) {
  const socket = new WebSocket(`ws://${host}/api${path}`, { headers });
  open.add(socket);
  const said: string[] = [];
  let closed: number | null = null;
  let refused: number | null = null;
  socket.on('message', (data: Buffer) => said.push(...data.toString().split('\n')));
  socket.on('close', (code) => (closed = code));
  socket.on('unexpected-response', (_request, response) => (refused = response.statusCode ?? 0));
  socket.on('error', () => undefined);
  const until = async (what: () => boolean): Promise<void> => {
    for (let i = 0; i < 1_500 && !what(); i += 1) await wait(10);
    if (!what())
      throw new Error(`never came true; said ${said.slice(-3).join(' | ')}, closed ${closed}, refused ${refused}`);
  };
  return {
    socket,
    said,
    opened: () => until(() => socket.readyState === WebSocket.OPEN),
    refusedWith: async (status: number) => until(() => refused === status),
    closedWith: async (code: number) => until(() => closed === code),
    hears: (wanted: string) => until(() => said.includes(wanted)),
    until,
  };
}

async function shopWithBox() {
  const shop = await addShop(opened.database);
  const answer = await client(opened.api).post('/session', { signInName: shop.signInName, password: PASSWORD });
  const cookie = answer.setCookie.split(';')[0] ?? '';
  const asked = client(opened.api, cookie);
  const { key } = (await asked.post('/instruments', { name: 'bench-1' })).json as { key: string };
  return { asked, key, page: { Cookie: cookie, Origin: `http://${host}` }, box: { Authorization: `Bearer ${key}` } };
}

const LISTEN = '/instruments/bench-1/listen';

test('a box is heard by its own shop only, from Yosoku’s own page only, and by who is signed in', async () => {
  const shop = await shopWithBox();
  const stranger = await shopWithBox();
  await line(LISTEN, { Origin: `http://${host}` }).refusedWith(401);
  await line(LISTEN, { ...shop.page, Origin: 'http://elsewhere.example' }).refusedWith(403);
  await line(LISTEN, { Cookie: shop.page.Cookie }).refusedWith(403);
  await line('/instruments/speak', { Authorization: 'Bearer nonsense' }).refusedWith(401);
  await line('/instruments/speak', { Origin: 'http://elsewhere.example' }).refusedWith(401);
  await line('/practice/instruments', { Origin: `http://${host}` }).refusedWith(401);

  const own = line(LISTEN, shop.page);
  const other = line(LISTEN, stranger.page);
  await own.hears('# gone');
  // Its key is enough, wherever its page came from.
  const box = line('/instruments/speak', { ...shop.box, Origin: 'http://elsewhere.example' });
  await own.hears('# here');
  expect((await shop.asked.get('/instruments')).json).toEqual({ boxes: [{ name: 'bench-1', live: true }] });
  box.socket.send('one line, and the beginning of an');
  box.socket.send('other\nnot ended');
  await own.hears('one line, and the beginning of another');
  box.socket.close();
  await own.hears('# gone');
  expect(other.said).toEqual(['# gone']);
  expect((await stranger.asked.del('/instruments/bench-2')).status).toBe(404);
});

test('two boxes under one key: the second is turned away while the first speaks, and takes over when it has fallen silent', async () => {
  const shop = await shopWithBox();
  const first = line('/instruments/speak', shop.box);
  await first.opened();
  await line('/instruments/speak', shop.box).closedWith(4409);
  expect(first.socket.readyState).toBe(WebSocket.OPEN);
  // By the exchange’s own clock, so that nobody waits for it.
  let now = 0;
  const exchange = makeExchange(() => now);
  const hungUp: string[] = [];
  expect(exchange.plugIn('a', () => hungUp.push('first'))).not.toBeNull();
  expect(exchange.plugIn('a', () => hungUp.push('second'))).toBeNull();
  now = 2_500;
  expect(exchange.plugIn('a', () => hungUp.push('third'))).not.toBeNull();
  expect(hungUp).toEqual(['first']);
});

test('a box that floods is cut off, and so is one that sends what is no text', async () => {
  const shop = await shopWithBox();
  const flood = line('/instruments/speak', shop.box);
  await flood.opened();
  for (let i = 0; i < 60; i += 1) flood.socket.send('x\n'.repeat(200));
  await flood.closedWith(1008);
  const binary = line('/instruments/speak', shop.box);
  await binary.opened();
  binary.socket.send(Buffer.from([1, 2, 3]));
  await binary.closedWith(1007);
  const large = line('/instruments/speak', shop.box);
  await large.opened();
  large.socket.send('y'.repeat(LARGEST_MESSAGE + 1));
  await large.closedWith(1009);
});

test('1,000 lines a second through the server, one in a hundred damaged: every value that is believed is right', async () => {
  const shop = await shopWithBox();
  const page = line(LISTEN, shop.page);
  const wire = line('/instruments/speak', shop.box);
  await Promise.all([page.opened(), wire.opened()]);
  const box = makeBenchBox('bench-1', { ...USUAL_BOX, angleNoise: 0, liftNoise: 0 }, makeRandom(3));
  const seconds = 3;
  for (let ms = 0; ms < seconds * 1000; ms += 1) {
    const said = box(ms, ms / 10, [ms / 1000, null]);
    if (said !== null) wire.socket.send(`${said}\n`);
    if (ms % 20 === 0) await wait(20);
  }
  await page.until(() => page.said.length > seconds * 1000 * 0.97);
  await wait(60);
  let heard: Heard = SILENT;
  for (const said of page.said.filter((each) => !each.startsWith('#'))) {
    heard = hear(heard, said, 0);
    const { last } = heard;
    if (last) expect(Math.abs(last.angle - last.ms / 10)).toBeLessThan(0.051);
  }
  expect(heard.tally.damaged).toBeGreaterThan(10);
  expect(heard.tally.good).toBeGreaterThan(seconds * 1000 * 0.95);
});

test('the stand-in of a practice engine speaks where the engine stands, and falls silent when its cable is pulled', async () => {
  const shop = await shopWithBox();
  const page = line('/practice/instruments', shop.page);
  await page.opened();
  page.socket.send(JSON.stringify({ manner: 'perfect', stands: [{ angle: 69.25, lifts: [1.27, 0] }] }));
  await page.until(() => page.said.length > 5);
  const heard = page.said.reduce((so, said) => hear(so, said, 0), SILENT);
  expect(steadyOf(heard)).toMatchObject({ angle: 69.25, lifts: [1.27, 0] });
  expect(parseLine(page.said[0] ?? '')).toMatchObject({ ok: true, sample: { box: 'practice-box' } });
  page.socket.send(JSON.stringify({ cable: 'out' }));
  await wait(100);
  const silent = page.said.length;
  await wait(200);
  expect(page.said.length).toBe(silent);
  page.socket.send('{"stands": 5}');
  await page.closedWith(1007);
});

test('names of boxes are one of a kind in a shop; their keys are shown once and kept as hashes', async () => {
  const shop = await shopWithBox();
  expect(await shop.asked.post('/instruments', { name: 'bench-1' })).toMatchObject({ status: 409 });
  expect(await shop.asked.post('/instruments', { name: 'bench 1' })).toMatchObject({ status: 422 });
  expect(JSON.stringify((await shop.asked.get('/instruments')).json)).not.toContain(shop.key);
  const speaking = line('/instruments/speak', shop.box);
  await speaking.opened();
  expect((await shop.asked.del('/instruments/bench-1')).status).toBe(200);
  await speaking.closedWith(4401);
  await line('/instruments/speak', shop.box).refusedWith(401);
});

test('who is not signed in learns nothing of the boxes', async () => {
  for (const path of ['/instruments', '/practice/scores'])
    expect((await client(opened.api).get(path)).status).toBe(401);
  const { signInName } = await addShop(opened.database);
  const other = await signedIn(opened.api, signInName);
  expect((await other.get('/instruments')).json).toEqual({ boxes: [] });
});
