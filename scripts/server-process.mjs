import { spawn } from 'node:child_process';
import { MIGRATIONS_DIR, SERVER_FILE, WEB_DIR } from './build.mjs';

/** Starts the built server. Its words go to `onLine`; resolves once it says that it is ready. */
export function startServer(settings, onLine) {
  const child = spawn(process.execPath, ['--enable-source-maps', SERVER_FILE], {
    env: { ...process.env, MIGRATIONS_DIR, WEB_DIR, ...settings, STOP_WITH_STDIN: '1' },
    // The pipe closes when this process ends, however it ends; the server then stops too and frees its port.
    stdio: ['pipe', 'pipe', 'inherit'],
    detached: true,
  });
  let ended = false;
  const done = new Promise((resolve) =>
    child.on('exit', (code) => {
      ended = true;
      resolve(code ?? 0);
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
    ready,
    done,
    async stop(signal = 'SIGTERM') {
      if (!ended) child.kill(signal);
      await done;
    },
  };
}
