import { spawn } from 'node:child_process';
import { MIGRATIONS_DIR, SERVER_FILE, WEB_DIR, WORKER_FILE } from './build.mjs';

/** Starts the built server. Its words go to `onLine`; `ready` resolves once it says that it is, with false when it ends before. */
export function startServer(settings, onLine) {
  const child = spawn(process.execPath, ['--enable-source-maps', SERVER_FILE], {
    env: { ...process.env, MIGRATIONS_DIR, WEB_DIR, WORKER_FILE, ...settings, STOP_WITH_STDIN: '1' },
    // The pipe closes when this process ends, however it ends; the server then stops too and frees its port.
    stdio: ['pipe', 'pipe', 'inherit'],
    detached: true,
  });
  let ended = false;
  /** Settles with the exit code, or the name of the signal that ended it. */
  const done = new Promise((resolve) =>
    child.on('exit', (code, signal) => {
      ended = true;
      resolve(signal ?? code);
    }),
  );
  const ready = new Promise((resolve) => {
    child.stdout.setEncoding('utf8');
    child.stdout.on('data', (text) => {
      for (const line of text.split('\n').filter(Boolean)) onLine(line);
      if (text.includes('is ready at')) resolve(true);
    });
    void done.then(() => resolve(false));
  });
  return {
    pid: child.pid,
    ready,
    done,
    async stop(signal = 'SIGTERM') {
      if (!ended) child.kill(signal);
      await done;
    },
  };
}
