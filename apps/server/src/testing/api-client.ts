import { setTimeout as wait } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';
import type { BodyOf, Entry, EntryKind } from '@yosoku/core/record/entry';
import { createApi } from '../api';
import { builder, shop } from '../db/schema';
import { type OpenDatabase, openDatabase } from '../db/database';
import { hashPassword } from '../sign-in/password';

/** The API on the test's own MariaDB, whose address `scripts/test.mjs` hands over. */
export async function openApi() {
  const url = process.env.TEST_DATABASE_URL;
  const migrations = process.env.MIGRATIONS_DIR;
  if (!url || !migrations) throw new Error('Run these tests with `npm run api`: they need a database of their own.');
  const database = openDatabase(url);
  await database.migrate(migrations);
  const api = createApi(database, { workerFile: workerFile() });
  return {
    database,
    api,
    close: async (): Promise<void> => {
      await api.close();
      await database.close();
    },
  };
}

/** `derive/worker.ts`, which `scripts/test.mjs` has bundled. */
export function workerFile(): string {
  const file = process.env.WORKER_FILE;
  if (!file) throw new Error('Run these tests with `npm run api`: they need the worker.');
  return file;
}

export type TestApi = Awaited<ReturnType<typeof openApi>>['api'];

export const PASSWORD = 'a-long-test-password';
const ORIGIN = 'http://localhost';

/** A hash brings its own cost, and this one’s is small: the usual takes the processor nearly half a second at each sign-in on purpose, which sign-in.test.ts checks. */
const passwordHash = hashPassword(PASSWORD, { N: 2 ** 10, r: 8, p: 1 });

/** Adds a builder who signs in with `PASSWORD`. */
export async function addTestBuilder(
  { db }: OpenDatabase,
  shopId: string,
  role: 'owner' | 'builder',
  signInName: string,
) {
  const id = uuidv7();
  await db.insert(builder).values({
    id,
    shopId,
    name: role === 'owner' ? 'Test builder' : 'Second builder',
    signInName,
    passwordHash: await passwordHash,
    role,
    createdAt: new Date(),
  });
  return id;
}

/** Adds a shop with one builder to the database. */
export async function addShop(database: OpenDatabase) {
  const shopId = uuidv7();
  const signInName = `b${shopId.slice(-12)}`;
  await database.db.insert(shop).values({ id: shopId, name: 'Test shop', createdAt: new Date() });
  const builderId = await addTestBuilder(database, shopId, 'owner', signInName);
  return { shopId, builderId, signInName };
}

/** Asks the API as a browser would, with a cookie. */
export function client(api: TestApi, cookie = '') {
  const ask = async (method: string, path: string, body?: unknown) => {
    const response = await api.request(`${ORIGIN}/api${path}`, {
      method,
      headers: { 'Content-Type': 'application/json', Origin: ORIGIN, ...(cookie ? { Cookie: cookie } : {}) },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    return {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      setCookie: response.headers.get('set-cookie') ?? '',
      json: text === '' ? {} : JSON.parse(text),
    };
  };
  return {
    get: (path: string) => ask('GET', path),
    post: (path: string, body: unknown) => ask('POST', path, body),
    put: (path: string, body: unknown) => ask('PUT', path, body),
    del: (path: string) => ask('DELETE', path),
  };
}

/** Signs in and returns a client that stays signed in. */
export async function signedIn(api: TestApi, signInName: string) {
  const answer = await client(api).post('/session', { signInName, password: PASSWORD });
  return client(api, answer.setCookie.split(';')[0] ?? '');
}

interface Listed {
  readonly id: string;
  readonly name: string;
  readonly headline: string;
  readonly verdictKind: string;
  readonly place: string;
  readonly behind: boolean;
}

/** The list of builds, once everything that lists show has been worked out beside. */
export async function upToDate(who: ReturnType<typeof client>): Promise<readonly Listed[]> {
  for (let tries = 0; tries < 200; tries += 1) {
    const { builds } = (await who.get('/builds')).json as { builds: readonly Listed[] };
    if (builds.every(({ behind }) => !behind)) return builds;
    await wait(50);
  }
  throw new Error('the summaries were never worked out');
}

export const makeEntry = <K extends EntryKind>(
  kind: K,
  body: BodyOf<K>,
  buildId: string,
  builderId: string,
): Extract<Entry, { kind: K }> =>
  ({ id: uuidv7(), buildId, kind, body, takenAt: '2026-03-14T09:26:53.000Z', builderId }) as Extract<
    Entry,
    { kind: K }
  >;

export const description = (name = 'Test four'): BodyOf<'build.described'> => ({
  replaces: null,
  name,
  engine: { cylinders: 4, firingOrder: [1, 3, 4, 2], rotation: 'clockwise' },
  wheel: { ring: '0-180' },
  units: 'in',
});
