import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Connection, Pool, RowDataPacket } from 'mysql2/promise';
import { z } from 'zod';

/** The database has a newer form than this program knows: nothing was touched. */
export class NewerSchema extends Error {}

const journalSchema = z.object({ entries: z.array(z.object({ idx: z.int(), when: z.number(), tag: z.string() })) });

interface Migration {
  readonly tag: string;
  /** When it was made, ms: what drizzle-kit's own migrator kept of it. */
  readonly when: number;
  readonly steps: readonly string[];
}

/** The migrations of a folder that drizzle-kit wrote, oldest first, each as its single statements. */
export function readMigrations(folder: string): readonly Migration[] {
  const { entries } = journalSchema.parse(JSON.parse(readFileSync(path.join(folder, 'meta/_journal.json'), 'utf8')));
  return entries.map(({ tag, when }) => ({
    tag,
    when,
    steps: readFileSync(path.join(folder, `${tag}.sql`), 'utf8')
      .split('--> statement-breakpoint')
      .map((step) => step.trim())
      .filter((step) => step !== ''),
  }));
}

/** What a statement says when it was carried out once already: table, column, index or foreign key is there, or gone. */
const DONE_ALREADY = new Set([1050, 1051, 1060, 1061, 1091, 1826]);
const FOREIGN_KEY_THERE = 1005;

function isDoneAlready(error: unknown): boolean {
  if (!(error instanceof Error) || !('errno' in error)) return false;
  if (error.errno === FOREIGN_KEY_THERE) return /errno: 121/.test(error.message);
  return DONE_ALREADY.has(Number(error.errno));
}

/** How long a server waits for another one that is at it, seconds. */
const LOCK_SECONDS = 120;

export interface MigrateHooks {
  /** After each statement, before it is marked: a test ends the process here. */
  readonly afterStep?: (tag: string, step: number) => void;
}

/**
 * Brings the database into the form that this program knows. One server at a time, under a named lock; every statement has a marker of its own,
 * set before and after it, so that one which was cut off goes on where it stopped. A statement cannot be undone with others as one whole (MariaDB commits
 * at every change of a table), so the one that was under way is run again, and that it was done already counts as done.
 *
 * @returns the migrations that were carried out.
 * @throws NewerSchema when the database has steps that this program does not know.
 */
export async function migrate(pool: Pool, folder: string, hooks: MigrateHooks = {}): Promise<readonly string[]> {
  const connection = await pool.getConnection();
  // A long change of a large table says nothing for a while, and is not lost for that.
  (connection as unknown as { stream?: { setTimeout(ms: number): void } }).stream?.setTimeout(0);
  const ask = async (sql: string, values: (string | number)[] = []): Promise<unknown> => {
    const [rows] = await connection.query<(RowDataPacket & { answer: unknown })[]>(sql, values);
    return rows[0]?.answer;
  };
  const lock = `yosoku-migrate-${String(await ask('select database() as answer'))}`.slice(0, 64);
  try {
    if (Number(await ask('select get_lock(?, ?) as answer', [lock, LOCK_SECONDS])) !== 1)
      throw new Error('Another server is changing the form of the database and does not come to an end.');
    try {
      return await migrateLocked(connection, readMigrations(folder), hooks);
    } finally {
      await connection.query('do release_lock(?)', [lock]);
    }
  } finally {
    connection.destroy();
  }
}

interface StepRow extends RowDataPacket {
  readonly tag: string;
  readonly step: number;
  readonly done: number;
}

async function migrateLocked(
  connection: Connection,
  migrations: readonly Migration[],
  { afterStep }: MigrateHooks,
): Promise<readonly string[]> {
  await connection.query(
    `create table if not exists schema_step (
       tag varchar(80) not null, step int not null, begun_at datetime(3) not null, done_at datetime(3),
       primary key (tag, step))`,
  );
  const adopted = await adopt(connection, migrations);
  const [rows] = await connection.query<StepRow[]>('select tag, step, done_at is not null as done from schema_step');
  const unknown = rows.find(({ tag }) => !migrations.some((each) => each.tag === tag));
  if (unknown)
    throw new NewerSchema(
      `This database was last used by a newer Yosoku (it has ${unknown.tag}, which this one does not know). Nothing was touched. Start the newer one, or restore a backup from before.`,
    );
  const stateOf = (tag: string, step: number) => rows.find((row) => row.tag === tag && row.step === step);
  const pending = migrations.filter(({ tag, steps }) => steps.some((_, step) => !stateOf(tag, step)?.done));
  for (const { tag, steps } of pending)
    for (const [step, statement] of steps.entries()) {
      const state = stateOf(tag, step);
      if (state?.done) continue;
      await connection.query('insert ignore into schema_step (tag, step, begun_at) values (?, ?, utc_timestamp(3))', [
        tag,
        step,
      ]);
      try {
        await connection.query(statement);
      } catch (error) {
        // Only where it may have been carried out before: it had been begun, or the older migrator left no markers.
        if (!(state || adopted) || !isDoneAlready(error)) throw error;
      }
      afterStep?.(tag, step);
      await connection.query('update schema_step set done_at = utc_timestamp(3) where tag = ? and step = ?', [
        tag,
        step,
      ]);
    }
  return pending.map(({ tag }) => tag);
}

/** Takes over what the migrator before this one had kept: the time of each migration that was done whole. Returns whether it had been used at all. */
async function adopt(connection: Connection, migrations: readonly Migration[]): Promise<boolean> {
  const [tables] = await connection.query<RowDataPacket[]>("show tables like '\\\\_\\\\_drizzle\\\\_migrations'");
  if (tables.length === 0) return false;
  const [kept] = await connection.query<RowDataPacket[]>('select max(created_at) as newest from __drizzle_migrations');
  const newest = Number(kept[0]?.newest ?? -1);
  const latest = migrations.at(-1)?.when ?? 0;
  if (newest > latest)
    throw new NewerSchema(
      'This database was last used by a newer Yosoku. Nothing was touched. Start the newer one, or restore a backup from before.',
    );
  const done = migrations
    .filter(({ when }) => when <= newest)
    .flatMap(({ tag, steps }) => steps.map((_, step) => [tag, step]));
  if (done.length > 0)
    await connection.query(
      `insert ignore into schema_step (tag, step, begun_at, done_at) values ${done.map(() => '(?, ?, utc_timestamp(3), utc_timestamp(3))').join(', ')}`,
      done.flat(),
    );
  return true;
}
