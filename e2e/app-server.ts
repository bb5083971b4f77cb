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

/** The built server on the test's own database, with the demo shop. It can be stopped and started again on its port. */
export async function openAppServer() {
  const SERVER_FILE = process.env.SERVER_FILE;
  const TEST_DATABASE_URL = process.env.TEST_DATABASE_URL;
  if (!SERVER_FILE || !TEST_DATABASE_URL) throw new Error('Run these tests with `npm run e2e`.');
  const port = await freePort();
  let child: ChildProcess | null = null;
  const start = async (): Promise<void> => {
    const started = spawn(process.execPath, [SERVER_FILE], {
      env: { ...process.env, DATABASE_URL: TEST_DATABASE_URL, DEMO: '1', PORT: String(port), HOST: '127.0.0.1' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    child = started;
    await new Promise<void>((resolve, reject) => {
      started.stdout?.on('data', (text: Buffer) => text.includes('is ready at') && resolve());
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
  await start();
  return { base: `http://127.0.0.1:${port}`, start, stop };
}

export type AppServer = Awaited<ReturnType<typeof openAppServer>>;
