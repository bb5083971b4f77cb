import { type ChildProcess, spawn } from 'node:child_process';
import net from 'node:net';

const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.on('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });

/** What this process has of what each that runs beside it has one of. */
export const oneOf = (each = ''): string | undefined => each.split(' ')[Number(process.env.JEST_WORKER_ID ?? 1) - 1];

/**
 * The built server on a database of the tests' own: with the demo shop, or empty as at a first visit. It can be stopped and
 * started again on its port. `said` is what it printed when it was last started. Where nothing is done to the server itself, `sharedServer` is there already.
 * @param more settings beside the usual.
 */
export function openAppServer(shop: 'demo' | 'none' = 'demo', more: Readonly<Record<string, string>> = {}) {
  return openServerOn(oneOf(shop === 'demo' ? process.env.DEMO_DATABASE_URLS : process.env.EMPTY_DATABASE_URLS), {
    DEMO: shop === 'demo' ? '1' : '0',
    ...more,
  });
}

/** Where the server is that all files share which leave it as it is: to start one for each costs as much as a journey. */
export function sharedServer(): { readonly base: string } {
  const base = oneOf(process.env.SHARED_SERVERS);
  if (!base) throw new Error('Run these tests with `npm run e2e`.');
  return { base };
}

/**
 * The built server on a database and with settings of its environment, on a free port of this machine.
 * @throws where it ends before it is ready.
 */
export async function openServerOn(databaseUrl: string | undefined, settings: Readonly<Record<string, string>>) {
  const SERVER_FILE = process.env.SERVER_FILE;
  if (!SERVER_FILE || !databaseUrl) throw new Error('Run these tests with `npm run e2e`.');
  const port = await freePort();
  let child: ChildProcess | null = null;
  let said = '';
  const start = async (): Promise<void> => {
    const started = spawn(process.execPath, [SERVER_FILE], {
      env: {
        ...process.env,
        DATABASE_URL: databaseUrl,
        PORT: String(port),
        HOST: '127.0.0.1',
        ...settings,
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    child = started;
    await new Promise<void>((resolve, reject) => {
      started.stdout?.on('data', (text: Buffer) => {
        if (!text.includes('is ready at')) return;
        said = text.toString();
        resolve();
      });
      started.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  };
  const stop = async (): Promise<void> => {
    const running = child;
    child = null;
    if (!running || running.exitCode !== null) return;
    await new Promise((resolve) => {
      running.on('exit', resolve);
      running.kill('SIGTERM');
    });
  };
  /** A server that is there and says nothing any more, until it is let go on. */
  const freeze = (still: boolean): void => void child?.kill(still ? 'SIGSTOP' : 'SIGCONT');
  await start();
  return { base: `http://127.0.0.1:${port}`, port, start, stop, freeze, said: () => said };
}

export type AppServer = Awaited<ReturnType<typeof openAppServer>>;
