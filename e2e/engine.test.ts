import { cpSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { X509Certificate } from 'node:crypto';
import { PNG } from 'pngjs';
import jsQR from 'jsqr';
import { Key } from 'selenium-webdriver';
import { type AppServer, openAppServer } from './app-server';
import {
  type Browser,
  PHONE,
  WIDE,
  appIsKept,
  axeViolations,
  deviceKeeps,
  openBrowser,
  ownersDevice,
  signIn,
  waitFor,
} from './browser';
import { goTo } from './places';

const folders: string[] = [];
const newFolder = (): string => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-engine-'));
  folders.push(folder);
  return folder;
};
const open: { close(): Promise<void> }[] = [];
const kept = <T extends { close(): Promise<void> }>(browser: T): T => {
  open.push(browser);
  return browser;
};
let server: AppServer | null = null;
afterEach(async () => {
  for (const browser of open.splice(0)) await browser.close();
  await server?.stop();
  server = null;
});
afterAll(() => folders.forEach((folder) => rmSync(folder, { recursive: true, force: true })));

const inPage = <T>({ driver }: Browser, script: string): Promise<T> => driver.executeScript<T>(`return ${script}`);

/** A build of this check’s own, from the list: it opens at Zero. */
async function beginBuild(browser: Browser, name: string): Promise<void> {
  await browser.press('new-build');
  await browser.fill('engine-name', name);
  await browser.fill('engine-cylinders', '2');
  await browser.fill('engine-firingOrder', '1-2');
  await browser.press('begin');
  await browser.find('[data-testid="zero-begin"]');
}

/** What a camera reads off the screen. */
async function codeOn(browser: Browser): Promise<string | undefined> {
  const { data, width, height } = PNG.sync.read(await browser.picture());
  return jsQR(new Uint8ClampedArray(data), width, height)?.data;
}

test('a phone is held before the bench screen once, and works: over https, offline, and kept', async () => {
  const tls = newFolder();
  server = await openAppServer('demo', { LAN: '1', LAN_NAME: 'bench', TLS_DIR: tls });
  const authority = path.join(tls, 'authority.crt');
  const bench = kept(await openBrowser(server.base, WIDE));
  await signIn(bench, 'mara', 'layout-dye-demo');
  await beginBuild(bench, 'Harrow Lane twin');
  await goTo(bench, 'prepare');
  await bench.press('stands');
  await bench.seeText('sync-sign', /^Saved$/);
  const station = new URL(await bench.driver.getCurrentUrl()).pathname;
  await bench.press('to-phone');
  const address = await bench.text('pair-address');
  expect(await codeOn(bench)).toBe(address);
  await bench.press('more-trust');
  expect(await bench.text('fingerprint')).toBe(new X509Certificate(readFileSync(authority)).fingerprint256);
  expect(await axeViolations(bench)).toEqual([]);

  const shop = `https://bench.local:${server.port}`;
  const phone = kept(await openBrowser(shop, PHONE, { name: 'bench.local', trusts: authority }));
  const { pathname, search, hash } = new URL(address);
  await phone.visit(`${pathname}${search}${hash}`);
  await phone.find('[data-testid="pair-waiting"]');
  expect(await axeViolations(phone)).toEqual([]);
  await bench.find('[data-testid="claimed"]');
  expect(await bench.text('figure')).toBe(await phone.text('figure'));
  await bench.fill('device-name', 'Phone of the second bay');
  await bench.press('it-is-mine');
  await bench.find('[data-testid="let-in"]');
  await phone.find('[data-testid="check-made-safe"]');
  expect(new URL(await phone.driver.getCurrentUrl()).pathname).toBe(station);

  // What a browser gives to secure pages alone.
  expect(await inPage(phone, `[isSecureContext, 'wakeLock' in navigator]`)).toEqual([true, true]);
  const manifest = await phone.driver.executeAsyncScript<{ display: string; icons: { src: string }[] }>(
    `fetch(document.querySelector('link[rel=manifest]').href).then((answer) => answer.json()).then(arguments[0])`,
  );
  expect(manifest.display).toBe('standalone');
  for (const { src } of manifest.icons)
    expect(await phone.driver.executeAsyncScript(`fetch('${src}').then(({ status }) => arguments[0](status))`)).toBe(
      200,
    );
  await appIsKept(phone);

  // The code was of one use.
  const late = kept(await openBrowser(shop, PHONE, { name: 'bench.local', trusts: authority }));
  await late.visit(`${pathname}${search}${hash}`);
  await late.seeText('pair-refused', /used already/);

  await server.stop();
  await phone.reload();
  await phone.press('skip-made-safe');
  await phone.fill('reason-made-safe', 'On the stand.');
  await phone.press('skip-made-safe');
  await phone.seeText('sync-sign', /not sent yet/);
  await phone.reload();
  await phone.seeText('check-made-safe', /On the stand/);
  await server.start();
  await phone.seeText('sync-sign', /^Saved$/);

  // The bench shuts it out again.
  await bench.visit('/shop');
  await bench.press('more-sessions');
  await bench.seeText('sessions', /Phone of the second bay/);
});

test('a browser that does not trust the authority is not let by', async () => {
  const tls = newFolder();
  server = await openAppServer('demo', { LAN: '1', LAN_NAME: 'bench', TLS_DIR: tls });
  const stranger = kept(await openBrowser(`https://bench.local:${server.port}`, PHONE, { name: 'bench.local' }));
  await stranger.visit('/').catch(() => undefined);
  expect(await stranger.driver.getTitle()).toBe('Privacy error');
});

test('over plain http it is said once what will not work; everything else does', async () => {
  server = await openAppServer();
  const phone = kept(await openBrowser(`http://bench.test:${server.port}`, PHONE, { name: 'bench.test' }));
  await signIn(phone, 'mara', 'layout-dye-demo');
  await phone.seeText('without-https', /cannot be kept awake/);
  await phone.press('https-told');
  await beginBuild(phone, 'Plain Street twin');
  await goTo(phone, 'prepare');
  await phone.press('stands');
  await phone.seeText('sync-sign', /^Saved$/);
  await server.stop();
  await phone.press('done-turns-freely');
  await phone.seeText('sync-sign', /not sent yet/);
  await server.start();
  await phone.seeText('sync-sign', /^Saved$/);
  await phone.visit('/');
  await phone.find('[data-testid="build"]');
  expect(await phone.driver.findElements({ css: '[data-testid="without-https"]' })).toEqual([]);
});

test('a new version waits for the end of a round, keeps what was typed, and leaves the old pieces to whoever has them open', async () => {
  const web = path.join(newFolder(), 'web');
  cpSync(process.env.WEB_DIR ?? '', web, { recursive: true });
  server = await openAppServer('demo', { WEB_DIR: web });
  const phone = kept(await openBrowser(server.base, PHONE));
  await signIn(phone, 'mara', 'layout-dye-demo');
  await beginBuild(phone, 'Round Meadow twin');
  await phone.press('zero-begin');
  await appIsKept(phone);
  const station = new URL(await phone.driver.getCurrentUrl()).pathname;
  await phone.press('key-6');
  await phone.press('key-9');
  await deviceKeeps(phone, 'drafts', (drafts) => JSON.stringify(drafts).includes('"69"'));

  // The next version: it has one piece less, and the server has it no more.
  const worker = path.join(web, 'sw.js');
  const text = readFileSync(worker, 'utf8');
  const [entry = '', piece = ''] =
    /\{"?revision"?:null,"?url"?:"([^"]*practice[^"]*\.js)"\},?/.exec(text) ??
    /\{[^{}]*"?url"?:"(_expo\/static\/js\/web\/[^"]+\.js)"[^{}]*\},?/.exec(text) ??
    [];
  expect(piece).not.toBe('');
  writeFileSync(worker, `${text.replace(entry, '')}\n// two`);
  for (const name of readdirSync(path.dirname(path.join(web, piece))))
    if (name.startsWith(path.basename(piece))) rmSync(path.join(path.dirname(path.join(web, piece)), name));
  for (const packed of ['sw.js.gz', 'sw.js.br']) rmSync(path.join(web, packed), { force: true });
  await phone.driver.executeAsyncScript(
    `navigator.serviceWorker.getRegistration().then((found) => found.update()).then(() => arguments[0]())`,
  );
  await waitFor(
    phone,
    () =>
      phone.driver.executeAsyncScript<boolean>(
        `navigator.serviceWorker.getRegistration().then((found) => arguments[0](found.waiting !== null))`,
      ),
    'the next version never stood ready',
  );
  // Hands are on the engine: nothing is offered.
  expect(await phone.driver.findElements({ css: '[data-testid="new-version"]' })).toEqual([]);
  await goTo(phone, 'sheet');
  await phone.seeText('new-version', /A new version is here/);
  await inPage(phone, 'void (window.before = true)');
  await phone.press('take-version');
  await waitFor(phone, () => inPage<boolean>(phone, 'window.before !== true'), 'the new version was never taken');
  // While the router starts, the address is not yet that of the page.
  await phone.visit(station);
  await phone.seeText('degree-wheel', /69/);
  expect(
    await phone.driver.executeAsyncScript(
      `fetch('/${piece}').then((answer) => answer.text()).then((got) => arguments[0](got.length > 100 && !got.startsWith('<')))`,
    ),
  ).toBe(true);
});

test('a pedal is taught, and records, undoes and nudges without a hand on the screen', async () => {
  const bench = kept(await ownersDevice().open(WIDE));
  await bench.visit('/device');
  const teach = async (does: string, key: string, says: string): Promise<void> => {
    await bench.press(`teach-${does}`);
    await bench.keys(key);
    await bench.seeText(`taught-${does}`, says);
  };
  await teach('record', Key.PAGE_DOWN, 'PageDown');
  await teach('undo', Key.PAGE_UP, 'PageUp');
  await teach('more', Key.F9, 'F9');
  await bench.press('teach-next');
  await bench.keys(Key.TAB);
  await bench.seeText('taught-said', /the browser needs it/);
  await bench.keys(Key.ESCAPE);
  expect(await axeViolations(bench)).toEqual([]);
  await bench.visit('/');
  await beginBuild(bench, 'Treadle twin');
  await bench.press('zero-begin');
  await bench.find('[data-testid="reading"]');
  await bench.keys('2', '0', 'b');
  // Feet are slower than this: what comes at once is the second key of the same press.
  const step = async (key: string): Promise<void> => {
    await bench.driver.sleep(200);
    await bench.keys(key);
  };
  await step(Key.F9);
  await bench.seeText('degree-wheel', /20¼°|19¾°/);
  await step(Key.PAGE_DOWN);
  await bench.seeText('sentence', /backwards/);
  await step(Key.PAGE_UP);
  await bench.seeText('sentence', /the way it runs/);
});
