import { strToU8, unzipSync, zipSync } from 'fflate';
import { fingerprintOf } from '@/photos/fingerprint-of';
import { packLogbook, picturesNamed, unpackLogbook } from './logbook-zip';

const bytes = (seed: number): Uint8Array => Uint8Array.from({ length: 2_000 }, (_, at) => (at * seed) % 251);
const LOGBOOK = JSON.stringify({
  entries: [
    { kind: 'photo.taken', body: { picture: 'a' } },
    { kind: 'trial.begun', body: {} },
    { kind: 'photo.taken', body: { picture: 'b' } },
    { kind: 'photo.taken', body: { picture: 'a' } },
  ],
});

async function packed(...pictures: readonly Uint8Array[]): Promise<Uint8Array> {
  const zip = await packLogbook(
    LOGBOOK,
    (async function* () {
      for (const content of pictures) yield { picture: fingerprintOf(content), bytes: content };
    })(),
  );
  return new Uint8Array(await new Response(zip).arrayBuffer());
}

test('a logbook and its photos come back from their zip to the byte', async () => {
  const [one, two] = [bytes(3), bytes(7)];
  const back = await unpackLogbook(await packed(one, two));
  if (!back.ok) throw new Error(back.message);
  expect(back.logbook).toBe(LOGBOOK);
  expect([...back.pictures.keys()]).toEqual([fingerprintOf(one), fingerprintOf(two)]);
  expect(back.pictures.get(fingerprintOf(two))).toEqual(two);
  expect(picturesNamed(back.logbook)).toEqual(['a', 'b']);
});

test('a photo that was changed is left out, what does not belong is passed over, and what is no such file says so', async () => {
  const good = bytes(3);
  const files = unzipSync(await packed(good));
  const changed = Uint8Array.from(good);
  changed[100] = (changed[100] ?? 0) + 1;
  const other = fingerprintOf(bytes(5));
  const mixed = zipSync({
    ...files,
    [`photos/${other}.jpg`]: changed,
    'photos/../../etc/passwd': strToU8('no'),
    'readme.txt': strToU8('no'),
  });
  const back = await unpackLogbook(mixed);
  expect(back.ok && [...back.pictures.keys()]).toEqual([fingerprintOf(good)]);

  expect(await unpackLogbook(strToU8('{"format":"yosoku-build"}'))).toMatchObject({
    ok: false,
    message: expect.stringContaining('no zip'),
  });
  expect(await unpackLogbook(zipSync({ 'photos.txt': strToU8('x') }))).toMatchObject({
    ok: false,
    message: expect.stringContaining('no logbook.yosoku.json'),
  });
  // A few kilobytes that would become 17 MB are not unpacked at all.
  const bomb = zipSync({ 'logbook.yosoku.json': new Uint8Array(17 * 1024 * 1024) });
  expect(bomb.length).toBeLessThan(50_000);
  expect(await unpackLogbook(bomb)).toMatchObject({ ok: false });
});
