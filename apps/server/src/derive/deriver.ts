import { Piscina } from 'piscina';
import { Problem } from '../web/problem';
import type { Tasks } from './tasks';
import type { Order, Settled } from './worker';

/** The answer to a request waits for a task at most so long, ms. An import reads and writes up to 16 MB. */
const PATIENCE_MS: Readonly<Record<keyof Tasks, number>> = {
  report: 45_000,
  sheet: 45_000,
  summary: 60_000,
  takeIn: 50_000,
};
const MOST_WAITING = 200;
const IDLE_MS = 60_000;

const tooLong = (): Problem =>
  new Problem(
    422,
    'Too much',
    'This build holds so much that it could not be worked through in time. Its readings are kept. Export it, and make a build of each part.',
  );

/** Trouble of the moment in a task: the database was away, or busy. */
export class TaskFailedForNow extends Error {}

/**
 * Threads beside the one that answers requests, for everything that may take long.
 * @param workerFile `worker.ts`, bundled.
 */
export function makeDeriver(workerFile: string, databaseUrl: string, threads = 2) {
  const pool = new Piscina({
    filename: workerFile,
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: IDLE_MS,
    maxQueue: MOST_WAITING,
    // An idle thread goes on listening: it must hear that the line to the database has broken.
    atomics: 'disabled',
    workerData: { databaseUrl },
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  });

  /** Does a task. Throws its problem, or one that says that it took too long; the thread is ended then. */
  async function run<K extends keyof Tasks>(
    task: K,
    input: Parameters<Tasks[K]>[0],
  ): Promise<Awaited<ReturnType<Tasks[K]>>> {
    const order: Order<K> = { task, input };
    let settled: Settled;
    try {
      settled = (await pool.run(order, { signal: AbortSignal.timeout(PATIENCE_MS[task]) })) as Settled;
    } catch (error) {
      if (error instanceof Error && error.name === 'AbortError') throw tooLong();
      if (error instanceof Error && /queue/i.test(error.message))
        throw new TaskFailedForNow('too many tasks are waiting');
      throw error;
    }
    if (settled.ok) return settled.value as Awaited<ReturnType<Tasks[K]>>;
    if ('problem' in settled) throw Problem.of(settled.problem);
    throw new TaskFailedForNow(settled.passing);
  }

  return { run, close: () => pool.destroy() };
}

export type Deriver = ReturnType<typeof makeDeriver>;
