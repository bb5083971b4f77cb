import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';
import { Hono } from 'hono';
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
import { errorInLog, openLog, putAside } from '../web/log';
import { makeCallerOf } from '../web/proxy';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

const ask = (path_: string, init: RequestInit = {}) => opened.api.request(`http://localhost/api${path_}`, init);

test('who is not signed in is not listened to: a large body is turned away before it is read', async () => {
  let read = 0;
  const endless = new ReadableStream<Uint8Array>({
    pull(controller) {
      read += 1;
      controller.enqueue(new Uint8Array(64 * 1024));
      if (read > 300) controller.close();
    },
  });
  const init = { method: 'POST', body: endless, duplex: 'half' } as RequestInit;
  expect((await ask('/import', init)).status).toBe(401);
  expect(read).toBeLessThan(5);
  const large = { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: 'x'.repeat(20_000) };
  expect((await ask('/session', large)).status).toBe(413);
  expect((await ask(`/builds/${uuidv7()}/entries`, large)).status).toBe(401);
});

test('pages, answers and refusals say what a browser must not do with them', async () => {
  for (const answer of [await ask('/health'), await ask('/builds'), await ask('/nowhere')]) {
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
    expect(answer.headers.get('content-security-policy')).toMatch(/form-action 'self'.*frame-ancestors 'none'/);
    expect(answer.headers.get('permissions-policy')).toMatch(/camera=\(\)/);
    expect(answer.headers.get('cache-control')).toBe('no-store');
  }
});

test('signing out works for whoever says nothing of where the page came from, and not from another page', async () => {
  const { signInName } = await addShop(opened.database);
  const cookieOf = async () =>
    (await client(opened.api).post('/session', { signInName, password: PASSWORD })).setCookie.split(';')[0] ?? '';
  const out = async (headers: Record<string, string>) => {
    const Cookie = await cookieOf();
    const { status } = await ask('/session', { method: 'DELETE', headers: { Cookie, ...headers } });
    return [status, (await ask('/session', { headers: { Cookie } })).status];
  };
  expect(await out({})).toEqual([200, 401]);
  expect(await out({ 'Sec-Fetch-Site': 'same-origin' })).toEqual([200, 401]);
  expect(await out({ Origin: 'http://localhost', Host: 'localhost' })).toEqual([200, 401]);
  expect(await out({ 'Sec-Fetch-Site': 'cross-site' })).toEqual([403, 200]);
  expect(await out({ Origin: 'http://elsewhere.test', Host: 'localhost' })).toEqual([403, 200]);
  expect(await out({ Origin: 'null', Host: 'localhost' })).toEqual([403, 200]);
});

test('a proxy is believed only if it is named; the cookie is for TLS alone behind one that says so', async () => {
  const seen = async (trusted: string, from: string, headers: Record<string, string>) => {
    const callerOf = makeCallerOf(trusted);
    const app = new Hono().get('/', (c) => c.json(callerOf(c)));
    const env = { incoming: { socket: { remoteAddress: from } } };
    return (await app.request('http://localhost/', { headers }, env)).json();
  };
  const said = { 'X-Forwarded-For': '203.0.113.9, 198.51.100.7', 'X-Forwarded-Proto': 'https' };
  expect(await seen('', '10.0.0.2', said)).toEqual({ address: '10.0.0.2', secure: false });
  expect(await seen('10.0.0.2', '10.0.0.3', said)).toEqual({ address: '10.0.0.3', secure: false });
  // The nearest hop is the caller; what stands before it he may have written himself.
  expect(await seen('10.0.0.0/24', '::ffff:10.0.0.2', said)).toEqual({ address: '198.51.100.7', secure: true });
  expect(await seen('10.0.0.0/24, 198.51.100.7', '10.0.0.2', said)).toEqual({ address: '203.0.113.9', secure: true });
  expect(() => makeCallerOf('the-proxy')).toThrow(/no address/);

  const { signInName } = await addShop(opened.database);
  const body = JSON.stringify({ signInName, password: PASSWORD });
  const headers = { 'Content-Type': 'application/json' };
  const secure = await opened.api.request('https://localhost/api/session', { method: 'POST', headers, body });
  expect(secure.headers.get('set-cookie')).toMatch(/yosoku_session=[^,]*; Secure/);
  const plain = await ask('/session', { method: 'POST', headers, body });
  expect(plain.headers.get('set-cookie')).not.toMatch(/Secure/);
});

test('the log tells what happened, and no secret', async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-log-'));
  const log = openLog(folder);
  const api = createApi(opened.database, { workerFile: workerFile(), log });
  const { signInName, builderId } = await addShop(opened.database);
  await client(api).post('/session', { signInName, password: 'wrong-and-secret' });
  const signedInAs = await client(api).post('/session', { signInName, password: PASSWORD });
  const me = await signedIn(api, signInName);
  const id = uuidv7();
  await me.post('/builds', { entry: makeEntry('build.described', description('A name of a build'), id, builderId) });
  const { json } = await me.post('/instruments', { name: 'bench-9' });
  await api.close();
  // A line goes to the disk beside the answer, not before it: the last one is waited for.
  const written = () => readFileSync(path.join(folder, 'server.log'), 'utf8');
  for (let looks = 0; looks < 1_000 && !/"path":"\/api\/instruments".*\n$/.test(written()); looks += 1) await wait(10);
  const text = written();
  rmSync(folder, { recursive: true });
  const lines = text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(lines).toContainEqual(expect.objectContaining({ msg: 'sign-in refused: Not signed in', name: signInName }));
  expect(lines).toContainEqual(expect.objectContaining({ msg: 'sign-in', name: signInName }));
  expect(lines).toContainEqual(
    expect.objectContaining({ msg: 'request', method: 'POST', path: '/api/builds', status: 201, by: builderId }),
  );
  expect(lines.every(({ time, level }) => typeof time === 'string' && typeof level === 'number')).toBe(true);
  const token = /yosoku_session=([^;]+)/.exec(signedInAs.setCookie)?.[1] ?? '?';
  for (const secret of [PASSWORD, 'wrong-and-secret', token, json.key, 'A name of a build'])
    expect(text).not.toContain(secret);
});

test('an error of the database is logged by its code: neither the statement nor what it was to write', () => {
  const inner = Object.assign(new Error("Duplicate entry 'secret' for key 'x'"), {
    code: 'ER_DUP_ENTRY',
    sql: 'secret',
  });
  const logged = errorInLog(new Error('Failed query: insert … params: secret', { cause: inner }));
  expect(logged).toMatchObject({ name: 'Error', what: 'ER_DUP_ENTRY' });
  expect(logged.at.length).toBeGreaterThan(2);
  expect(JSON.stringify(logged)).not.toContain('secret');
  expect(errorInLog(new TypeError('x is not a function')).what).toBe('x is not a function');
});

test('a log that has grown is put aside, and only the last ones are kept', () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-log-'));
  const file = path.join(folder, 'server.log');
  for (let n = 0; n < 9; n += 1) {
    writeFileSync(file, `the ${n}th, and long enough`);
    expect(putAside(file, 10)).toBe(true);
  }
  writeFileSync(file, 'short');
  expect(putAside(file, 10)).toBe(false);
  const kept = readdirSync(folder).sort();
  expect(kept).toEqual(['server.log', ...[1, 2, 3, 4, 5].map((n) => `server.log.${n}`)]);
  expect(readFileSync(`${file}.1`, 'utf8')).toMatch(/^the 8th/);
  expect(readFileSync(`${file}.5`, 'utf8')).toMatch(/^the 4th/);
  rmSync(folder, { recursive: true });
});
