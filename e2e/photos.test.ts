import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { unzipSync } from 'fflate';
import { encode } from 'jpeg-js';
import { By } from 'selenium-webdriver';
import { type AppServer, openAppServer } from './app-server';
import { type Browser, PHONE, WIDE, appIsKept, axeViolations, openBrowser, signIn, waitFor } from './browser';
import { goTo } from './places';

const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-photos-'));
let server: AppServer;
beforeAll(async () => {
  server = await openAppServer();
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await server.stop();
});

/** A picture as a camera writes it: large, and with the place where it was taken. */
function takenByCamera(): string {
  const [width, height] = [3000, 2250];
  const data = Buffer.alloc(width * height * 4, 200);
  for (let at = 0; at < width * height; at += 1) data[4 * at] = (at % width) % 256;
  const plain = encode({ data, width, height }, 70).data;
  const exif = Buffer.from('Exif\0\0MM\0*\0\0\0\x08 GPS 48.1 N 11.6 E, serial 4711');
  const head = Buffer.from([0xff, 0xe1, 0, exif.length + 2]);
  const file = path.join(folder, 'camera.jpg');
  writeFileSync(file, Buffer.concat([plain.subarray(0, 2), head, exif, plain.subarray(2)]));
  return file;
}

/** The field itself is out of sight. */
async function choose(browser: Browser, testId: string, file: string): Promise<void> {
  const css = By.css(`[data-testid="${testId}"]`);
  await waitFor(browser, async () => (await browser.driver.findElements(css)).length > 0, `there is no ${testId}`);
  await browser.driver.findElement(css).sendKeys(file);
}

/** Waits until a picture of so many pixels is drawn. */
const seesPicture = (browser: Browser, width: number): Promise<void> =>
  waitFor(
    browser,
    () =>
      browser.driver.executeScript<boolean>(
        `return [...document.querySelectorAll('[data-testid^="photo-of-"] img')].some((img) => img.naturalWidth === arguments[0])`,
        width,
      ),
    `no picture of ${width} pixels is shown`,
  );

test('a photo taken without a network is kept, sent when there is one, seen on another screen, printed, and taken away', async () => {
  const phone = await openBrowser(server.base, PHONE);
  await signIn(phone, 'mara', 'layout-dye-demo');
  await phone.press('new-build');
  await phone.fill('engine-name', 'Photo twin');
  await phone.fill('engine-cylinders', '2');
  await phone.fill('engine-firingOrder', '1-2');
  await phone.press('begin');
  await phone.seeText('sync-sign', /Saved/);
  await appIsKept(phone);
  await server.stop();

  await phone.press('to-photos');
  const [none, huge] = [path.join(folder, 'notes.jpg'), path.join(folder, 'huge.jpg')];
  writeFileSync(none, 'no picture at all');
  writeFileSync(huge, '');
  truncateSync(huge, 60 * 1024 * 1024);
  await choose(phone, 'add-photo', none);
  await phone.seeText('photo-trouble', /“notes\.jpg” is no picture/);
  await choose(phone, 'add-photo', huge);
  await phone.seeText('photo-trouble', /“huge\.jpg” has more than 40 MB/);
  await phone.fill('photo-words', 'Scored journal');
  await choose(phone, 'add-photo', takenByCamera());
  await seesPicture(phone, 2000);
  await phone.seeText('sync-sign', /2 not sent yet · working offline/);
  await phone.reload();
  await seesPicture(phone, 2000);
  expect(await axeViolations(phone)).toEqual([]);

  await server.start();
  await phone.seeText('sync-sign', /^Saved$/);
  const address = new URL(await phone.driver.getCurrentUrl()).pathname;
  const id = address.split('/')[2] ?? '';

  const bench = await openBrowser(server.base, WIDE);
  try {
    await signIn(bench, 'mara', 'layout-dye-demo');
    await bench.visit(address);
    await seesPicture(bench, 2000);
    await bench.seeText('sheet', /Scored journal/);
    await goTo(bench, 'sheet');
    await bench.driver.sendDevToolsCommand('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: folder,
    });
    await bench.press('save-zip');
    const file = path.join(folder, 'photo-twin.yosoku.zip');
    await waitFor(bench, () => existsSync(file), 'the file was never saved');
    const [[name, picture] = ['', new Uint8Array()]] = Object.entries(unzipSync(readFileSync(file))).filter(([each]) =>
      each.startsWith('photos/'),
    );
    expect(name).toBe(`photos/${createHash('sha256').update(picture).digest('hex')}.jpg`);
    // Nothing of what the camera wrote beside the picture is left.
    expect(Buffer.from(picture).includes('Exif')).toBe(false);
    expect(Buffer.from(picture).includes('4711')).toBe(false);

    const pdf = await bench.driver.executeAsyncScript<string>(
      `const done = arguments[arguments.length - 1];
       fetch('/api/builds/${id}/sheet.pdf').then((answer) => answer.blob()).then((blob) => {
         const reader = new FileReader();
         reader.onload = () => done(reader.result.split(',')[1]);
         reader.readAsDataURL(blob);
       });`,
    );
    const sheet = path.join(folder, 'sheet.pdf');
    writeFileSync(sheet, Buffer.from(pdf, 'base64'));
    expect(execFileSync('pdfimages', ['-list', sheet], { encoding: 'utf8' })).toMatch(/image\s+2000\s+1500\s/);

    // What was taken away comes back: it is all here, so nothing is new, and nothing is missing.
    await bench.visit('/');
    await choose(bench, 'take-in', file);
    await bench.seeText('sheet', /Scored journal/);
    await bench.seeText('sync-sign', /^Saved$/);
  } finally {
    await bench.close();
    await phone.close();
  }
});
