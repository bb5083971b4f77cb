import type { Result } from '@yosoku/core/problem';
import { readdirSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { worker, workerEmit } from 'workerpool';
import { openDatabase } from '../db/database';
import { isPassing } from '../db/trouble';
import { Problem, type ProblemFields } from '../web/problem';
import { type Tasks, type WithBytes, makeTasks } from './tasks';

/** What a task gave, in a form that crosses between processes. */
export type Settled = Result<
  /** Bytes of the value have gone ahead, in pieces. */
  { readonly value: object | undefined },
  { readonly problem: ProblemFields } | { readonly passing: string }
>;

export interface Order<K extends keyof Tasks = keyof Tasks> {
  readonly task: K;
  readonly input: Parameters<Tasks[K]>[0];
}

// Every thread of this process steps back whenever the process that answers requests has something to do. On Linux a priority is a thread's.
for (const thread of process.platform === 'linux' ? readdirSync('/proc/self/task') : ['0'])
  setPriority(Number(thread), constants.priority.PRIORITY_LOW);

// Control-C reaches this process too: the one that answers requests lets what is under way finish, then ends this one.
process.on('SIGINT', () => undefined);

const databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) throw new Error('DATABASE_URL is not set.');
const tasks = makeTasks(openDatabase(databaseUrl, 2).db);

/** As much as one reading of the channel takes: it puts a longer message together by copying what it has with every reading, which stops the other side. */
const PIECE_BYTES = 60_000;

const hasBytes = (value: object): value is WithBytes => 'bytes' in value && value.bytes instanceof Uint8Array;

/** Sends bytes on ahead, in pieces. */
function withoutBytes(value: object | undefined): object | undefined {
  if (!value || !hasBytes(value)) return value;
  for (let at = 0; at < value.bytes.length; at += PIECE_BYTES) workerEmit(value.bytes.subarray(at, at + PIECE_BYTES));
  return { ...value, bytes: null };
}

/** Does one task. Asked for by the pool in `deriver.ts`. */
async function run({ task, input }: Order): Promise<Settled> {
  try {
    const work = tasks[task] as (input: unknown) => Promise<object | undefined>;
    return { ok: true, value: withoutBytes(await work(input)) };
  } catch (error) {
    if (error instanceof Problem) return { ok: false, problem: error.fieldsOf() };
    if (isPassing(error)) return { ok: false, passing: error instanceof Error ? error.message : String(error) };
    throw error;
  }
}

worker({ run });
