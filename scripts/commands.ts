import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';

/** For checks of the commands: starts them as somebody at the terminal would, each in a folder of its own. */

export const ROOT = path.resolve(__dirname, '..');

export interface Ended {
  readonly code: number | null;
  readonly out: string;
}

/** A command that goes on. */
export interface Running {
  readonly child: ChildProcess;
  readonly out: () => string;
  readonly ended: Promise<Ended>;
  /** Waits until it has said so. */
  readonly says: (words: RegExp) => Promise<string>;
}

/** Tells a command, and what it started in its own name. */
export function signal(child: ChildProcess, name: 'SIGTERM' | 'SIGKILL'): void {
  try {
    process.kill(-(child.pid ?? NaN), name);
  } catch {
    // It has ended already.
  }
}

const running = new Set<ChildProcess>();
const folders = new Set<string>();

export function begin(line: string, env: Readonly<Record<string, string>> = {}): Running {
  const [command = '', ...args] = line.split(' ');
  // What the checks run under is not what somebody at a terminal has.
  const own = { ...process.env };
  delete own.JEST_WORKER_ID;
  delete own.NODE_ENV;
  const child = spawn(command, args, {
    cwd: ROOT,
    env: { ...own, FORCE_COLOR: '0', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
    // A group of its own: npm does not pass every signal on to what it started.
    detached: true,
  });
  running.add(child);
  let out = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text: Buffer) => (out += text.toString()));
  const ended = new Promise<Ended>((resolve) =>
    child.on('close', (code) => {
      running.delete(child);
      resolve({ code, out });
    }),
  );
  const says = async (words: RegExp): Promise<string> => {
    let over = false;
    void ended.then(() => (over = true));
    for (;;) {
      const match = words.exec(out);
      if (match) return match[0];
      if (over) throw new Error(`it ended without saying ${words}:\n${out}`);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  };
  return { child, out: () => out, ended, says };
}

export const run = (line: string, env?: Readonly<Record<string, string>>): Promise<Ended> => begin(line, env).ended;

export function newFolder(): string {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-commands-'));
  folders.add(folder);
  return folder;
}

/** Ends what a check left running, and takes its folders away. */
export async function tidy(): Promise<void> {
  for (const child of running) signal(child, 'SIGTERM');
  for (let i = 0; i < 400 && running.size > 0; i += 1) await new Promise((resolve) => setTimeout(resolve, 50));
  for (const child of running) signal(child, 'SIGKILL');
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
  folders.clear();
}

export const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.on('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });

/** The child of a process whose command line has these words. */
export function childOf(parent: number, words: RegExp): number {
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      const ppid = Number(/^PPid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]);
      if (ppid === parent && words.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))) return Number(pid);
    } catch {
      // It has just ended.
    }
  throw new Error(`process ${parent} has no child like ${words}`);
}

/** Waits until the application at this address says so of its health. */
export async function health(base: string, status: number): Promise<void> {
  for (let i = 0; i < 1200; i += 1) {
    const answer = await fetch(`${base}/api/health`, { signal: AbortSignal.timeout(5_000) }).catch(() => null);
    if (answer?.status === status) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`health never said ${status}`);
}
