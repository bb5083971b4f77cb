import { constants, setPriority } from 'node:os';
import { workerData } from 'node:worker_threads';
import { openDatabase } from '../db/database';
import { isPassing } from '../db/trouble';
import { Problem, type ProblemFields } from '../web/problem';
import { type Tasks, makeTasks } from './tasks';

/** What a task gave, in a form that crosses between threads. */
export type Settled =
  | { readonly ok: true; readonly value: unknown }
  | { readonly ok: false; readonly problem: ProblemFields }
  | { readonly ok: false; readonly passing: string };

export interface Order<K extends keyof Tasks = keyof Tasks> {
  readonly task: K;
  readonly input: Parameters<Tasks[K]>[0];
}

// This thread alone (0 is whoever asks): it steps back whenever the one that answers requests has something to do.
setPriority(0, constants.priority.PRIORITY_LOW);

// Piscina hands its own data over first, then ours.
const { databaseUrl } = (Array.isArray(workerData) ? workerData[1] : workerData) as { readonly databaseUrl: string };
const tasks = makeTasks(openDatabase(databaseUrl, 2).db);

/** Does one task in a thread of its own. Run by the pool in `deriver.ts`. */
export default async function run({ task, input }: Order): Promise<Settled> {
  try {
    const work = tasks[task] as (input: unknown) => Promise<unknown>;
    return { ok: true, value: await work(input) };
  } catch (error) {
    if (error instanceof Problem) return { ok: false, problem: error.fieldsOf() };
    if (isPassing(error)) return { ok: false, passing: error instanceof Error ? error.message : String(error) };
    throw error;
  }
}
