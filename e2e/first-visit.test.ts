import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 as uuidv7 } from 'uuid';
import { writeBuildFile } from '@yosoku/core/record/file';
import { derive } from '@yosoku/core/report/report';
import { larkMillEight } from '../apps/server/src/demo/signed-build';
import { type AppServer, openAppServer } from './app-server';
import { type Browser, PHONE, axeViolations, openBrowser, pressUntil } from './browser';

let server: AppServer;
let browser: Browser;
const scratch = mkdtempSync(path.join(os.tmpdir(), 'yosoku-files-'));
beforeAll(async () => {
  server = await openAppServer('none');
  browser = await openBrowser(server.base, PHONE);
});
afterAll(async () => {
  await browser.close();
  await server.stop();
  rmSync(scratch, { recursive: true, force: true });
});

test('without the demo: the one-time code opens the shop, a wrong one does not, and the empty list says what to do', async () => {
  const code = /with the code (\S+)/.exec(server.said())?.[1] ?? '';
  expect(code).toMatch(/^[A-Z0-9]{8}$/);
  // There is nothing to sign in to yet: the page comes without a sign-in and leads on.
  const bare = await (await fetch(server.base, { headers: { accept: 'text/html' } })).text();
  expect(bare).toContain('id="root"');
  expect(bare).not.toContain('first-form');
  await browser.visit('/');
  await browser.fill('setup-code', 'WRONG234');
  await browser.fill('setup-shopName', 'Tansy Row Engines');
  await browser.fill('setup-builderName', 'Ines Harrow');
  await browser.fill('setup-signInName', 'ines');
  await browser.fill('setup-password', 'a long enough one');
  await browser.press('setup');
  await browser.find('[role=alert]');
  expect(await axeViolations(browser)).toEqual([]);
  await browser.fill('setup-code', code);
  await pressUntil(browser, 'setup', '[data-testid="new-build"]');
  await browser.seeMain(/No build yet[\s\S]*Zero comes first/);
  expect(await axeViolations(browser)).toEqual([]);
  // Who has no engine yet is led straight to one that is not there.
  await browser.press('first-practice');
  await browser.find('[data-testid="practice-engine"]');
  await browser.seeText('advice', /bar across the bore/);
  await browser.visit('/');
  await browser.seeMain(/No build yet/);
  // A build of another shop is taken in whole; half a file, not at all.
  const entries = larkMillEight({ nextId: uuidv7, builderId: uuidv7(), startedAt: new Date('2026-03-01T08:00:00Z') });
  const text = writeBuildFile(entries, []);
  const give = async (name: string, contents: string): Promise<void> => {
    const file = path.join(scratch, name);
    writeFileSync(file, contents);
    await browser.driver.findElement({ css: '[data-testid="take-in"]' }).sendKeys(file);
  };
  await give('half.yosoku.json', text.slice(0, 5000));
  await browser.seeText('take-in-trouble', /“half\.yosoku\.json” was not imported[\s\S]*cut short/);
  // What is wrong with a field is said in plain words also by the program as it is delivered.
  await give('odd.yosoku.json', text.replace('"below-peak"', '"sideways"'));
  await browser.seeText(
    'take-in-trouble',
    /“odd\.yosoku\.json” was not imported[\s\S]*shows\.kind.*is of no kind that is known here/,
  );
  expect(await axeViolations(browser)).toEqual([]);
  await give('lark.yosoku.json', text);
  await browser.seeText('sheet', /Signed by Mara Quill/);
  await browser.seeMain(derive(entries)?.verdict.headline ?? '–');
  await browser.visit('/');
  // Nobody else gets in by the demo's passwords, and nothing of this shop is shown without a sign-in.
  const opened = await browser.driver.executeAsyncScript<number[]>(
    `const done = arguments[arguments.length - 1];
     const tryDemo = fetch('/api/session', { method: 'POST', headers: { 'content-type': 'application/json' },
       body: JSON.stringify({ signInName: 'mara', password: 'layout-dye-demo' }) }).then((answer) => answer.status);
     const bare = fetch('/api/builds', { credentials: 'omit' }).then((answer) => answer.status);
     Promise.all([tryDemo, bare]).then(done);`,
  );
  expect(opened).toEqual([401, 401]);
});
