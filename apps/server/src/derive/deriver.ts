import { Promise as PoolPromise, pool as openPool } from 'workerpool';
import { Problem } from '../web/problem';
import type { Tasks } from './tasks';
import type { Order, Settled } from './worker';

const BUILD_TOO_LARGE =
  'This build holds so much that it could not be worked through in time. Its readings are kept. Export it, and make a build of each part.';

/** The answer to a request waits for a task at most so long, ms, and then says that. An import reads and writes up to 16 MB. */
const LIMITS: Readonly<Record<keyof Tasks, { readonly patience: number; readonly tooLong: string }>> = {
  report: { patience: 45_000, tooLong: BUILD_TOO_LARGE },
  sheet: { patience: 45_000, tooLong: BUILD_TOO_LARGE },
  paper: { patience: 45_000, tooLong: BUILD_TOO_LARGE },
  board: { patience: 20_000, tooLong: BUILD_TOO_LARGE },
  summary: { patience: 60_000, tooLong: BUILD_TOO_LARGE },
  takeIn: { patience: 50_000, tooLong: BUILD_TOO_LARGE },
  logo: {
    patience: 15_000,
    tooLong: 'This logo could not be drawn in time. Make it simpler, or send it as PNG.',
  },
};
const MOST_WAITING = 200;
/** What one task may hold, MB: a build of the most points that are worked through takes a third of it. */
const MOST_MEMORY_MB = 1024;

/** Trouble of the moment in a task: the database was away, or busy. */
export class TaskFailedForNow extends Error {}

/**
 * Processes beside the one that answers requests, for everything that may take long. Threads of one process will not do: they share its
 * collector of rubbish, and while a large build is worked through every request would wait for that.
 * @param workerFile `worker.ts`, bundled.
 */
export function makeDeriver(workerFile: string, databaseUrl: string, processes = 2) {
  const pool = openPool(workerFile, {
    workerType: 'process',
    maxWorkers: processes,
    maxQueueSize: MOST_WAITING,
    forkOpts: {
      // The sheet is bytes: plain JSON, the default between processes, would write each as a number.
      serialization: 'advanced',
      execArgv: ['--enable-source-maps', `--max-old-space-size=${MOST_MEMORY_MB}`],
      env: { ...process.env, DATABASE_URL: databaseUrl },
    },
  });

  /** Does a task. Throws its problem, or one that says that it took too long; its process is ended then. */
  async function run<K extends keyof Tasks>(
    task: K,
    input: Parameters<Tasks[K]>[0],
  ): Promise<Awaited<ReturnType<Tasks[K]>>> {
    const order: Order<K> = { task, input };
    if (pool.stats().pendingTasks >= MOST_WAITING) throw new TaskFailedForNow('too many tasks are waiting');
    const pieces: Uint8Array[] = [];
    const working = pool.exec('run', [order], { on: (piece: Uint8Array) => pieces.push(piece) });
    const { patience, tooLong } = LIMITS[task];
    const limit = setTimeout(() => working.cancel(), patience);
    let settled: Settled;
    try {
      settled = (await working) as Settled;
    } catch (error) {
      if (error instanceof PoolPromise.CancellationError) throw new Problem(422, 'Too much', tooLong);
      throw error;
    } finally {
      clearTimeout(limit);
    }
    if (settled.ok) {
      const value = pieces.length > 0 ? { ...settled.value, bytes: Buffer.concat(pieces) } : settled.value;
      return value as Awaited<ReturnType<Tasks[K]>>;
    }
    if ('problem' in settled) throw Problem.of(settled.problem);
    throw new TaskFailedForNow(settled.passing);
  }

  return {
    run,
    close: async (): Promise<void> => {
      await pool.terminate(true);
    },
  };
}

export type Deriver = ReturnType<typeof makeDeriver>;
