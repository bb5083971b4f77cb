import { PNG } from 'pngjs';
import { v7 as uuidv7 } from 'uuid';
import { LOGO_BYTES } from '@yosoku/core/paper/letterhead';
import { PASSWORD, addShop, client, description, makeEntry, openApi, signedIn } from '../testing/api-client';

let opened: Awaited<ReturnType<typeof openApi>>;
beforeAll(async () => {
  opened = await openApi();
});
afterAll(() => opened.close());

const ORIGIN = 'http://localhost';

async function someShop() {
  const { signInName, builderId } = await addShop(opened.database);
  const me = await signedIn(opened.api, signInName);
  const { setCookie } = await client(opened.api).post('/session', { signInName, password: PASSWORD });
  const Cookie = setCookie.split(';')[0] ?? '';
  const send = async (file: string | Uint8Array) => {
    const body = typeof file === 'string' ? Buffer.from(file) : Buffer.from(file);
    const answer = await opened.api.request(`${ORIGIN}/api/shop/logo`, {
      method: 'PUT',
      headers: { 'Content-Length': String(body.length), Origin: ORIGIN, Cookie },
      body: new Uint8Array(body),
    });
    return { status: answer.status, json: (await answer.json()) as { detail?: string } };
  };
  const get = (path: string) => opened.api.request(`${ORIGIN}/api${path}`, { headers: { Cookie } });
  return { me, send, get, builderId };
}

const svg = (inside: string, more = 'viewBox="0 0 40 30"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${more}>${inside}</svg>`;
const RECT = '<rect x="2" y="2" width="36" height="26" fill="#0B6E60"/>';

function png(width: number, height: number, alpha = 255): Buffer {
  const picture = new PNG({ width, height });
  for (let at = 0; at < picture.data.length; at += 4) picture.data.set([11, 110, 96, alpha], at);
  return PNG.sync.write(picture);
}

test('lines and logo stand at the head of every sheet of the shop, and of no other one', async () => {
  const { me, send, get, builderId } = await someShop();
  const empty = { words: '', logo: null };
  expect((await me.get('/shop/letterhead')).json).toEqual(empty);
  expect((await get('/shop/logo')).status).toBe(404);
  const words = '  Fennel Yard 3\r\nLower Sallow  \n\n';
  expect((await me.put('/shop/letterhead', { words })).status).toBe(200);
  expect((await send(svg(RECT))).status).toBe(200);
  expect((await me.get('/shop/letterhead')).json).toMatchObject({
    words: 'Fennel Yard 3\nLower Sallow',
    logo: { kind: 'svg', width: 40, height: 30 },
  });
  const picture = await get('/shop/logo');
  expect(picture.headers.get('content-type')).toBe('image/svg+xml');
  expect(picture.headers.get('content-security-policy')).toMatch(/default-src 'none'.*sandbox/);

  const id = uuidv7();
  await me.post('/builds', { entry: makeEntry('build.described', description(), id, builderId) });
  const sizes = async () =>
    Promise.all(
      ['sheet.pdf', 'sheet.pdf?reader=customer', 'pistons.pdf?angles=0'].map(async (paper) => {
        const answer = await get(`/builds/${id}/${paper}`);
        expect(answer.status).toBe(200);
        return (await answer.arrayBuffer()).byteLength;
      }),
    );
  const drawn = await sizes();
  // A picture in its place; then none.
  expect((await send(png(60, 20))).status).toBe(200);
  expect((await me.get('/shop/letterhead')).json).toMatchObject({ logo: { kind: 'png', width: 60, height: 20 } });
  const pictured = await sizes();
  expect((await me.del('/shop/logo')).status).toBe(200);
  const without = await sizes();
  for (const [at, size] of without.entries()) {
    expect(drawn[at]).toBeGreaterThan(size);
    expect(pictured[at]).toBeGreaterThan(size);
  }
  expect((await me.get('/shop/letterhead')).json).toEqual({ words: 'Fennel Yard 3\nLower Sallow', logo: null });
  const other = await someShop();
  expect((await other.me.get('/shop/letterhead')).json).toEqual(empty);
});

test('a logo of 30 MB, with script in it, damaged or endless is refused in words, and the one before stays', async () => {
  const { me, send } = await someShop();
  expect((await send(png(8, 8))).status).toBe(200);
  const doubled = Array.from(
    { length: 30 },
    (_, at) => `<g id="l${at + 1}"><use href="#l${at}"/><use href="#l${at}"/></g>`,
  ).join('');
  const chain = Array.from({ length: 9_000 }, (_, at) => `<g id="c${at}"><use href="#c${at + 1}"/></g>`).join('');
  const cases: [file: string | Uint8Array, status: number, words: RegExp][] = [
    [new Uint8Array(30 * 1024 * 1024), 413, /at most 1 MB/],
    [new Uint8Array(LOGO_BYTES + 1), 413, /at most 1 MB/],
    ['no drawing', 422, /neither an SVG drawing nor a PNG/],
    [new Uint8Array([0xff, 0xd8, 0xff, 0xe0]), 422, /neither an SVG drawing nor a PNG/],
    [svg(`${RECT}<script>alert(1)</script>`), 422, /script in this drawing/],
    [svg(`<metadata><script>alert(1)</script></metadata>${RECT}`), 422, /script in this drawing/],
    [svg('<rect width="4" height="4" onclick="alert(1)"/>'), 422, /script in this drawing/],
    [svg(RECT, 'viewBox="0 0 4 4" onload="alert(1)"'), 422, /script in this drawing/],
    [svg('<use xlink:href="http://elsewhere.test/a.svg#b"/>'), 422, /calls for something that is not in it/],
    [svg('<a xlink:href="javascript:alert(1)"><path d="M0 0h4"/></a>'), 422, /link in this drawing/],
    [svg('<rect width="4" height="4" style="fill:url(http://elsewhere.test/)"/>'), 422, /calls for something/],
    [svg('<style>@import "http://elsewhere.test/a.css";</style>'), 422, /more than colour it/],
    [svg('<style>rect{fill:u\\72l(http://elsewhere.test/)}</style>'), 422, /more than colour it/],
    [svg('<style>rect{fill:u<!-- -->rl(http://elsewhere.test/)}</style>'), 422, /calls for something/],
    [svg('<style>rect{fill:u<![CDATA[rl(http://elsewhere.test/)]]>}</style>'), 422, /calls for something/],
    [svg('<image href="data:image/png;base64,AAAA" width="4" height="4"/>'), 422, /picture inside/],
    [svg('<foreignObject><p xmlns="http://www.w3.org/1999/xhtml">x</p></foreignObject>'), 422, /cannot be printed/],
    [svg('<text>Fennel</text>'), 422, /letters in this drawing/],
    [`<!DOCTYPE svg [<!ENTITY a "aaaaaaaa"><!ENTITY b "&a;&a;">]>${svg('<desc>&b;</desc>')}`, 422, /definitions/],
    [`<?xml-stylesheet href="http://elsewhere.test/a.css"?>${svg(RECT)}`, 422, /style sheet that is not in it/],
    [svg(RECT, ''), 422, /how large it is/],
    [svg(RECT, 'viewBox="0 0 0 30"'), 422, /how large it is/],
    [`${svg(RECT).slice(0, -8)}`, 422, /no SVG drawing, or it is damaged/],
    [svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'), 422, /without end/],
    [svg(`<defs><g id="l0">${RECT}</g>${doubled}</defs><use href="#l30"/>`), 422, /more than 20000 parts/],
    [svg(chain), 422, /nested too deeply/],
    [svg('<g>'.repeat(60) + '</g>'.repeat(60)), 422, /nested too deeply/],
    [png(2_001, 4), 422, /2000 pixels a side; this one has 2001 × 4/],
    [png(8, 8).subarray(0, 50), 422, /damaged/],
    [png(8, 8).fill(7, 45, 60), 422, /damaged/],
  ];
  for (const [file, status, words] of cases) {
    const answer = await send(file);
    expect([String(file.slice(0, 300)), answer.status]).toEqual([String(file.slice(0, 300)), status]);
    expect(answer.json.detail).toMatch(words);
  }
  expect((await me.get('/shop/letterhead')).json).toMatchObject({ logo: { kind: 'png', width: 8 } });
});

test('of a drawing is kept what is seen: data of the drawing program goes, shapes and colours stay', async () => {
  const { send, get } = await someShop();
  const drawing = svg(
    '<!-- made by hand --><?xpacket begin=""?><title>Logo</title><metadata><who xmlns="urn:x">Mara</who></metadata>' +
      '<tool:grid xmlns:tool="urn:tool"><tool:line/></tool:grid><style>.ink{fill:#1D1B16}</style>' +
      '<defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#0B6E60"/></linearGradient></defs>' +
      '<g tool:layer="1" xmlns:tool="urn:tool" class="ink" data-x="1"><path d="M0 0h4v3z" fill="url(#g)"/><use xlink:href="#g"/></g>',
    'width="40mm" height="30mm"',
  );
  expect(
    (await send(`<?xml version="1.0"?>\n<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "x.dtd">${drawing}`)).status,
  ).toBe(200);
  const kept = await (await get('/shop/logo')).text();
  for (const words of [
    '.ink{fill:#1D1B16}',
    'class="ink"',
    'fill="url(#g)"',
    'stop-color="#fff"',
    'd="M0 0h4v3z"',
    'xlink:href="#g"',
  ])
    expect(kept).toContain(words);
  expect(kept).not.toMatch(/Mara|Logo|made by hand|tool|data-x|DOCTYPE/);
  expect(kept).toMatch(/viewBox="0 0 151\.18\d* 113\.38\d*"/);
});

test('too many lines or too long a one is refused at its field; a builder who is not the owner sees the head and sets nothing', async () => {
  const { me } = await someShop();
  const five = await me.put('/shop/letterhead', { words: 'a\nb\nc\nd\ne' });
  expect(five).toMatchObject({
    status: 422,
    json: { fields: [{ field: 'words', message: 'at most 4 lines have room' }] },
  });
  const long = await me.put('/shop/letterhead', { words: 'a'.repeat(81) });
  expect(long).toMatchObject({ status: 422, json: { detail: expect.stringMatching(/at most 80 characters/) } });
  const signInName = `hand-${uuidv7()}`;
  await me.post('/builders', { builderName: 'A hand', signInName, password: PASSWORD });
  const hand = await signedIn(opened.api, signInName);
  expect((await hand.get('/shop/letterhead')).status).toBe(200);
  expect(await hand.put('/shop/letterhead', { words: 'Mine' })).toMatchObject({
    status: 403,
    json: { detail: 'Only the owner of the shop sets its letterhead.' },
  });
  expect((await hand.del('/shop/logo')).status).toBe(403);
});
