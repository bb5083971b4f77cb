import type { RowDataPacket } from 'mysql2';
import { type OpenDatabase, openDatabase } from './database';
import { NewerSchema, readMigrations } from './migrate';

const FOLDER = process.env.MIGRATIONS_DIR ?? '';
let database: OpenDatabase;
beforeAll(() => {
  database = openDatabase(process.env.SPARE_DATABASE_URL ?? '');
});
beforeEach(() => empty());
afterAll(() => database.close());

const rowsOf = async (sql: string): Promise<RowDataPacket[]> => (await database.pool.query<RowDataPacket[]>(sql))[0];

async function empty(): Promise<void> {
  const connection = await database.pool.getConnection();
  await connection.query('set foreign_key_checks = 0');
  for (const row of await rowsOf('show tables')) await connection.query('drop table ??', [Object.values(row)[0]]);
  await connection.query('set foreign_key_checks = 1');
  connection.release();
}

/** The form of the database: every table as it would be created. */
async function form(): Promise<string[]> {
  const tables = (await rowsOf('show tables')).map((row) => String(Object.values(row)[0]));
  const texts = [];
  for (const table of tables.filter((name) => name !== '__drizzle_migrations').sort())
    texts.push(String((await rowsOf(`show create table \`${table}\``))[0]?.['Create Table']));
  return texts;
}

const STEPS = readMigrations(FOLDER).flatMap(({ tag, steps }) => steps.map((_, step) => [tag, step] as const));

test('cut off after any statement, it goes on where it stopped, and the form is the same', async () => {
  await database.migrate(FOLDER);
  const whole = await form();
  expect(STEPS.length).toBeGreaterThan(30);
  await empty();
  for (const [tag, step] of STEPS) {
    const killed = database.migrate(FOLDER, {
      // After the statement, before it is marked as done: the worst moment.
      afterStep: (at, n) => {
        if (at === tag && n === step) throw new Error('killed');
      },
    });
    // Each goes on where the one before it was killed: a statement done twice is refused, one left out shows in the form.
    expect([tag, step, await killed.catch((error: Error) => error.message)]).toEqual([tag, step, 'killed']);
  }
  await database.migrate(FOLDER);
  expect(await form()).toEqual(whole);
});

test('two servers that start on an empty database both come up', async () => {
  const other = openDatabase(database.url);
  const [a, b] = await Promise.all([database.migrate(FOLDER), other.migrate(FOLDER)]);
  await other.close();
  // One did all of it, the other found it done.
  expect([a.length, b.length].sort((x, y) => x - y)).toEqual([0, readMigrations(FOLDER).length]);
});

/** As the migrator before this one left it: no markers, the time of each migration that was done whole. */
async function asBefore(whole: number, more: readonly string[]): Promise<void> {
  await database.pool.query(
    'create table __drizzle_migrations (id serial primary key, hash text not null, created_at bigint)',
  );
  const migrations = readMigrations(FOLDER);
  for (const { steps, when } of migrations.slice(0, whole)) {
    for (const step of steps) await database.pool.query(step);
    await database.pool.query('insert into __drizzle_migrations (hash, created_at) values (?, ?)', ['x', when]);
  }
  for (const step of more) await database.pool.query(step);
}

test('a database of the migrator before is taken over, also one that it left half-way', async () => {
  await database.migrate(FOLDER);
  const whole = await form();
  await empty();
  const migrations = readMigrations(FOLDER);
  await asBefore(5, migrations[5]?.steps.slice(0, 2) ?? []);
  const done = await database.migrate(FOLDER);
  expect(done).toEqual(migrations.slice(5).map(({ tag }) => tag));
  expect(await form()).toEqual(whole);
});

test('a database that a newer program has used is left alone, with words', async () => {
  await database.migrate(FOLDER);
  await database.pool.query(
    "insert into schema_step (tag, step, begun_at, done_at) values ('0099_of_tomorrow', 0, utc_timestamp(3), utc_timestamp(3))",
  );
  const before = await form();
  await expect(database.migrate(FOLDER)).rejects.toThrow(NewerSchema);
  await expect(database.migrate(FOLDER)).rejects.toThrow(/newer Yosoku.*0099_of_tomorrow/);
  expect(await form()).toEqual(before);
});

test('builds of a database from before know where a list leads, or are worked out anew', async () => {
  const earlier = readMigrations(FOLDER).findIndex(({ tag }) => tag === '0010_list-place');
  await asBefore(earlier, [
    "insert into shop (id, name, created_at) values ('s', 'Before', now())",
    ...(
      [
        ['judged', 'leave', 'proved'],
        ['found', 'waiting', 'proved'],
        ['begun', 'waiting', 'found'],
        ['new', 'waiting', 'none'],
      ] as const
    ).map(
      ([id, verdict, zero]) =>
        `insert into build (id, shop_id, created_at, summary_seq, name, zero_state, verdict_kind) values ('${id}', 's', now(), 7, '${id}', '${zero}', '${verdict}')`,
    ),
  ]);
  await database.migrate(FOLDER);
  const builds = await rowsOf('select id, place, summary_seq from build order by id');
  expect(builds.map(({ id, place, summary_seq }) => [id, place, summary_seq])).toEqual([
    ['begun', 'zero', 7],
    ['found', 'read', 7],
    ['judged', 'decide', 7],
    ['new', 'zero', 0],
  ]);
});
