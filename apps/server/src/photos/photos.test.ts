import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { v7 as uuidv7 } from 'uuid';
import { MOST_PHOTOS } from '@yosoku/core/photos/photo';
import { photo } from '../db/schema';
import { addShop, client, description, makeEntry, openApi, PASSWORD, signedIn } from '../testing/api-client';
import { drawnJpeg } from '../testing/jpeg';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

const ORIGIN = 'http://localhost';
const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

async function someBuild() {
  const { signInName, builderId } = await addShop(opened.database);
  const me = await signedIn(opened.api, signInName);
  const { setCookie } = await client(opened.api).post('/session', { signInName, password: PASSWORD });
  const cookie = setCookie.split(';')[0] ?? '';
  const buildId = uuidv7();
  await me.post('/builds', { entry: makeEntry('build.described', description(), buildId, builderId) });
  const send = async (picture: string, bytes: Uint8Array, build = buildId) => {
    const answer = await opened.api.request(`${ORIGIN}/api/builds/${build}/photos/${picture}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'image/jpeg', 'Content-Length': String(bytes.length), Origin: ORIGIN, Cookie: cookie },
      body: new Uint8Array(bytes),
    });
    const text = await answer.text();
    return { status: answer.status, detail: text === '' ? '' : String(JSON.parse(text).detail) };
  };
  const fetchIt = (picture: string, build = buildId, as = cookie) =>
    opened.api.request(`${ORIGIN}/api/builds/${build}/photos/${picture}`, { headers: { Cookie: as } });
  const name = (bytes: Uint8Array, more = {}) => {
    const body = {
      picture: sha256(bytes),
      width: 64,
      height: 48,
      bytes: bytes.length,
      shows: 'damage' as const,
      of: null,
      ...more,
    };
    return me.post(`/builds/${buildId}/entries`, { entries: [makeEntry('photo.taken', body, buildId, builderId)] });
  };
  return { buildId, builderId, cookie, me, send, fetchIt, name };
}

test('a picture is taken once its entry is there, comes back to the byte, and goes to no other shop', async () => {
  const { send, fetchIt, name, buildId } = await someBuild();
  const bytes = drawnJpeg(1);
  const picture = sha256(bytes);
  expect(await send(picture, bytes)).toMatchObject({
    status: 409,
    detail: expect.stringContaining('has to come first'),
  });
  expect((await name(bytes)).status).toBe(201);
  expect((await fetchIt(picture)).status).toBe(404);
  expect((await send(picture, bytes)).status).toBe(204);
  // A broken line sends it again.
  expect((await send(picture, bytes)).status).toBe(204);
  const back = await fetchIt(picture);
  expect(back.headers.get('content-type')).toBe('image/jpeg');
  expect(sha256(new Uint8Array(await back.arrayBuffer()))).toBe(picture);

  const other = await someBuild();
  expect((await fetchIt(picture, buildId, other.cookie)).status).toBe(404);
  expect((await other.send(picture, bytes, buildId)).status).toBe(404);
  expect((await fetchIt(picture, buildId, '')).status).toBe(401);
});

test('what is no picture, damaged, too large, or still has the data of the camera, is refused in words', async () => {
  const { send, name, buildId } = await someBuild();
  const good = drawnJpeg(2);
  const exif = Buffer.concat([
    good.subarray(0, 2),
    Buffer.from([0xff, 0xe1, 0, 10]),
    Buffer.from('Exif\0\0GP'),
    good.subarray(2),
  ]);
  const comment = Buffer.concat([good.subarray(0, 2), Buffer.from([0xff, 0xfe, 0, 4, 65, 66]), good.subarray(2)]);
  const frame = good.findIndex((byte, at) => byte === 0xff && good[at + 1] === 0xc0);
  const vast = Buffer.from(good);
  vast.writeUInt16BE(2001, frame + 7);
  for (const [bytes, said] of [
    [Buffer.from('GIF89a, or so it says'), 'no JPEG picture'],
    [good.subarray(0, good.length - 40), 'damaged'],
    [exif, 'data of the camera'],
    [comment, 'data of the camera'],
    [vast, '2001'],
  ] as const) {
    await name(bytes);
    expect(await send(sha256(bytes), bytes)).toMatchObject({ status: 422, detail: expect.stringContaining(said) });
  }
  await name(good);
  expect(await send(sha256(good), drawnJpeg(3))).toMatchObject({
    status: 422,
    detail: expect.stringContaining('not the picture that the logbook names'),
  });
  expect((await send('not-a-fingerprint', good)).status).toBe(404);
  expect(await send(sha256(good), Buffer.alloc(3 * 1024 * 1024 + 1))).toMatchObject({
    status: 413,
    detail: expect.stringContaining('at most 3 MB'),
  });

  const many = Array.from({ length: MOST_PHOTOS }, (_, at) => ({
    buildId,
    picture: at.toString(16).padStart(64, '0'),
    bytes: Buffer.from([1]),
    receivedAt: new Date(),
  }));
  await opened.database.db.insert(photo).values(many);
  expect(await send(sha256(good), good)).toMatchObject({ status: 422, detail: expect.stringContaining('at most 200') });
});

test('photos are printed on a page of their own, as poppler finds them; one that has not come yet is said', async () => {
  const { send, name, cookie, buildId } = await someBuild();
  const [here, away] = [drawnJpeg(4), drawnJpeg(5)];
  await name(here, { words: 'Scored journal' });
  await name(away, { shows: 'card' });
  await send(sha256(here), here);
  const answer = await opened.api.request(`${ORIGIN}/api/builds/${buildId}/sheet.pdf`, { headers: { Cookie: cookie } });
  const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-photo-'));
  try {
    const file = path.join(folder, 'sheet.pdf');
    writeFileSync(file, new Uint8Array(await answer.arrayBuffer()));
    const run = (program: string, ...args: string[]) => spawnSync(program, args, { encoding: 'utf8' }).stdout;
    expect(run('pdfimages', '-list', file)).toMatch(/^\s+2\s+\d+\s+image\s+64\s+48\s+/m);
    const text = run('pdftotext', '-f', '2', file, '-');
    for (const words of ['Photos', 'Scored journal', 'Photo of the card', 'has not been sent yet'])
      expect(text).toContain(words);
    run('pdfimages', '-j', file, path.join(folder, 'out'));
    expect(sha256(readFileSync(path.join(folder, 'out-000.jpg')))).toBe(sha256(here));
  } finally {
    rmSync(folder, { recursive: true });
  }
});
