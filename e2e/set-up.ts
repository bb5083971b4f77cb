import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { openServerOn } from './app-server';
import { CHROMIUM, FLAGS } from './browser';

/** What all files of a run share: for each process that runs them a server with the demo shop, and the device of its owner. */

/** A browser is asked whether it is there this often, ms. */
const LOOK_MS = 20;

/** The processes that helped a browser end a moment after it, and write until then. */
async function takeAway(profile: string): Promise<void> {
  for (let left = 200; ; left -= 1)
    try {
      rmSync(profile, { recursive: true, force: true });
      return;
    } catch (error) {
      if (left === 0) throw error;
      await wait(LOOK_MS);
    }
}

/** A browser that outlives whoever drives it. */
async function startBrowser() {
  const profile = mkdtempSync(path.join(os.tmpdir(), 'yosoku-device-'));
  const browser = spawn(
    CHROMIUM,
    [...FLAGS, '--remote-debugging-port=0', `--user-data-dir=${profile}`, '--window-size=1280,800', 'about:blank'],
    { stdio: 'ignore' },
  );
  const stop = async (): Promise<void> => {
    const ended = new Promise((resolve) => browser.on('exit', resolve));
    // Not asked to end: it would take its time to write down what is thrown away.
    if (browser.kill('SIGKILL')) await ended;
    await takeAway(profile);
  };
  const told = path.join(profile, 'DevToolsActivePort');
  // Its second line comes last.
  while (!existsSync(told) || !readFileSync(told, 'utf8').includes('\n/')) {
    if (browser.exitCode !== null) throw new Error(`the browser ended with ${browser.exitCode}`);
    await wait(LOOK_MS);
  }
  return { address: `127.0.0.1:${readFileSync(told, 'utf8').split('\n')[0]}`, stop };
}

/** What was started, for `tear-down.ts`: Jest loads both in its own process. */
export const started: { readonly stop: () => Promise<void> }[] = [];

/** For Jest, once before the first file. */
export default async function setUp(): Promise<void> {
  const databases = (process.env.DEMO_DATABASE_URLS ?? '').split(' ');
  const servers = await Promise.all(databases.map((url) => openServerOn(url, { DEMO: '1' })));
  started.push(...servers);
  const browsers = await Promise.all(databases.map(startBrowser)).catch(async (error: unknown) => {
    // Jest ends here, and asks nobody to tidy up.
    await Promise.all(started.map(({ stop }) => stop()));
    throw error;
  });
  started.push(...browsers);
  process.env.SHARED_SERVERS = servers.map(({ base }) => base).join(' ');
  process.env.SHARED_BROWSERS = browsers.map(({ address }) => address).join(' ');
}
