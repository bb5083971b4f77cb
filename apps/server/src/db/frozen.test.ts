import net from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';
import { createApi } from '../api';
import { addShop, description, makeEntry, openApi, signedIn, workerFile } from '../testing/api-client';
import { openDatabase } from './database';
import { isPassing, retried } from './trouble';

/** Stands between server and database: passes everything on until it freezes, or cuts every line. */
async function makeGate(to: URL) {
  let frozen = false;
  const lines = new Set<net.Socket>();
  const gate = net.createServer((near) => {
    const far = net.connect(Number(to.port), to.hostname);
    for (const [from, into] of [
      [near, far],
      [far, near],
    ] as const) {
      lines.add(from);
      from.on('data', (data) => {
        if (!frozen) into.write(data);
      });
      from.on('error', () => undefined);
      from.on('close', () => {
        lines.delete(from);
        into.destroy();
      });
    }
  });
  await new Promise<void>((resolve) => gate.listen(0, '127.0.0.1', resolve));
  return {
    port: (gate.address() as net.AddressInfo).port,
    freeze: (now: boolean) => (frozen = now),
    cut: () => {
      for (const line of lines) line.destroy();
    },
    close: () => {
      for (const line of lines) line.destroy();
      gate.close();
    },
  };
}

test('a database that freezes is “busy” within seconds, health says so, and all is well when it moves again', async () => {
  const opened = await openApi();
  const gate = await makeGate(new URL(opened.database.url));
  const through = new URL(opened.database.url);
  through.port = String(gate.port);
  const database = openDatabase(through.href);
  const api = createApi(database, { workerFile: workerFile() });
  const { signInName, builderId } = await addShop(opened.database);
  const me = await signedIn(api, signInName);
  const id = uuidv7();
  await me.post('/builds', { entry: makeEntry('build.described', description(), id, builderId) });
  expect(await me.get('/health')).toMatchObject({ status: 200, json: { ok: true } });

  gate.freeze(true);
  const trial = makeEntry('trial.begun', { after: null }, id, builderId);
  const [posted, listed, health, live] = await Promise.all([
    me.post(`/builds/${id}/entries`, { entries: [trial] }),
    me.get('/builds'),
    me.get('/health'),
    me.get('/health/live'),
  ]);
  expect([posted.status, listed.status, health.status, live.status]).toEqual([503, 503, 503, 200]);
  const raw = await api.request('http://localhost/api/health');
  expect(raw.status).toBe(503);

  gate.freeze(false);
  gate.cut();
  await wait(50);
  expect((await me.post(`/builds/${id}/entries`, { entries: [trial] })).status).toBe(201);
  // Cut in between, again and again: what is asked is done all the same.
  for (let i = 0; i < 5; i += 1) {
    gate.cut();
    const next = makeEntry('trial.begun', { after: null }, id, builderId);
    expect((await me.post(`/builds/${id}/entries`, { entries: [next] })).status).toBe(201);
  }
  await api.close();
  await database.close();
  gate.close();
  await opened.close();
});

const failing = (code: string, times: number) => {
  let tries = 0;
  return {
    tries: () => tries,
    work: async () => {
      tries += 1;
      if (tries <= times) throw new Error('wrapped', { cause: Object.assign(new Error('inner'), { code }) });
      return 'done';
    },
  };
};

test.each(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ECONNRESET', 'PROTOCOL_CONNECTION_LOST'])(
  '%s is tried again, and said as passing when it does not cease',
  async (code) => {
    const once = failing(code, 2);
    expect(await retried(once.work)).toBe('done');
    expect(once.tries()).toBe(3);
    const always = failing(code, Infinity);
    const error = await retried(always.work).catch((thrown: unknown) => thrown);
    expect(isPassing(error)).toBe(true);
    expect(always.tries()).toBe(5);
  },
);

test('what the driver says of a connection that is being closed is passing, though it gives it no code', async () => {
  const closing = Object.assign(new Error("Can't add new command when connection is in closed state"), { fatal: true });
  expect(isPassing(new Error('Failed query', { cause: closing }))).toBe(true);
});

test('a full disk is passing, and not tried again at once; a mistake is neither', async () => {
  const full = failing('ER_DISK_FULL', Infinity);
  expect(isPassing(await retried(full.work).catch((thrown: unknown) => thrown))).toBe(true);
  expect(full.tries()).toBe(1);
  expect(isPassing(new TypeError('undefined is not a function'))).toBe(false);
});
