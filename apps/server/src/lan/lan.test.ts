import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import https from 'node:https';
import os from 'node:os';
import path from 'node:path';
import { type AddressInfo, createServer } from 'node:net';
import { connect } from 'node:tls';
import { WebSocketServer } from 'ws';
import { addressOf, localName, privateAddresses } from './addresses';
import { fingerprintOf, openAuthority } from './authority';
import { listenOnLan } from './listen';
import { plainSite } from './plain-site';

const folders: string[] = [];
const newFolder = (): string => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-lan-'));
  folders.push(folder);
  return folder;
};
afterAll(() => folders.forEach((folder) => rmSync(folder, { recursive: true })));

const pemOf = (der: Buffer): string =>
  `-----BEGIN CERTIFICATE-----\n${der.toString('base64').replace(/(.{64})/g, '$1\n')}\n-----END CERTIFICATE-----\n`;

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });

/** What OpenSSL says of a server that shows this certificate under this name: null where it is content. */
function judged(shown: { key: string; cert: string }, ca: string, servername: string): Promise<string | null> {
  return new Promise((resolve) => {
    const server = https.createServer(shown).listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      const done = (said: string | null): void => {
        socket.destroy();
        server.close(() => resolve(said));
      };
      const socket = connect({ port, host: '127.0.0.1', ca, servername }, () => done(null));
      socket.on('error', (error: Error & { code?: string }) => done(`${error.code}: ${error.message}`));
    });
  });
}

test('a machine that took the authority in trusts its servers on private names, and nothing else that it signs', async () => {
  const folder = newFolder();
  const authority = await openAuthority(folder, 'Yosoku of bench.local');
  const ca = pemOf(authority.file);
  const good = await authority.certificateFor(['bench.local', '192.168.7.20', 'fd00::7', 'localhost']);
  expect(await judged(good, ca, 'bench.local')).toBeNull();
  expect(await judged(good, ca, 'other.local')).toMatch(/ALTNAME_INVALID/);
  // Without the authority nobody believes it.
  expect(await judged(good, pemOf((await openAuthority(newFolder(), 'Another')).file), 'bench.local')).not.toBeNull();
  // RFC 5280, 4.2.1.10: names outside of what an authority may vouch for.
  const stolen = await authority.certificateFor(['bank.example']);
  expect(await judged(stolen, ca, 'bank.example')).toMatch(/permitted subtree violation/);
  const outside = await authority.certificateFor(['203.0.113.7', 'bench.local']);
  expect(await judged(outside, ca, 'bench.local')).toMatch(/permitted subtree violation/);
  expect(authority.fingerprint).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
  for (const file of ['authority.key', 'server.key']) expect(statSync(path.join(folder, file)).mode & 0o077).toBe(0);
});

test('the authority stays, its certificate is kept as long as it serves, and made anew when it runs out or another name comes', async () => {
  const folder = newFolder();
  const first = await openAuthority(folder, 'Yosoku');
  const kept = await first.certificateFor(['bench.local']);
  const again = await openAuthority(folder, 'Yosoku');
  expect(again.fingerprint).toBe(first.fingerprint);
  expect(await again.certificateFor(['bench.local'])).toEqual(kept);
  const more = await again.certificateFor(['bench.local', '10.0.0.4']);
  expect(more.cert).not.toBe(kept.cert);
  expect(await again.certificateFor(['10.0.0.4'])).toEqual(more);
  const later = new Date(Date.now() + 370 * 24 * 3600_000);
  expect((await again.certificateFor(['bench.local', '10.0.0.4'], later)).cert).not.toBe(more.cert);
});

test('half of an authority is not replaced behind the back of the phones that trust it', async () => {
  const folder = newFolder();
  await openAuthority(folder, 'Yosoku');
  const key = readFileSync(path.join(folder, 'authority.key'));
  rmSync(path.join(folder, 'authority.key'));
  await expect(openAuthority(folder, 'Yosoku')).rejects.toThrow(/one of its two files is missing.*from a copy/);
  writeFileSync(path.join(folder, 'authority.key'), 'scrap');
  await expect(openAuthority(folder, 'Yosoku')).rejects.toThrow(/cannot be read/);
  writeFileSync(path.join(folder, 'authority.key'), key);
  await expect(openAuthority(folder, 'Yosoku')).resolves.toBeDefined();
});

test('one port answers over TLS, and unencrypted on this machine alone', async () => {
  const folder = newFolder();
  const port = await freePort();
  const { listening, reach } = await listenOnLan({
    fetch: (request: Request) => new Response(new URL(request.url).protocol),
    sockets: new WebSocketServer({ noServer: true }),
    port,
    host: '127.0.0.1',
    folder,
    own: null,
    name: 'Bench PC',
    onTrouble: (error) => {
      throw error;
    },
  });
  const ca = readFileSync(path.join(folder, 'authority.crt'), 'utf8');
  const overTls = await new Promise<string>((resolve, reject) =>
    https
      .get({ port, host: '127.0.0.1', servername: 'bench-pc.local', ca, agent: false }, (answer) => {
        let text = '';
        answer.on('data', (part) => (text += part)).on('end', () => resolve(text));
      })
      .on('error', reject),
  );
  expect(overTls).toBe('https:');
  const unencrypted = await fetch(`http://127.0.0.1:${port}/`, { headers: { Connection: 'close' } });
  expect(await unencrypted.text()).toBe('http:');
  expect(reach().addresses.at(-1)).toBe(`https://bench-pc.local:${port}`);
  await new Promise<void>((resolve) => {
    listening.close(resolve);
    listening.closeAll();
  });
});

test('who comes unencrypted from elsewhere gets the way to trust this shop, and nothing else', async () => {
  const authority = await openAuthority(newFolder(), 'Yosoku');
  const site = plainSite({ authority, port: 8787 });
  const ask = (where: string, host = '192.168.7.20:8787', init = {}) =>
    site.request(`http://${host}${where}`, { headers: { host }, ...init });
  const page = await ask('/builds/7');
  const text = await page.text();
  expect(text).toContain('data-to="https://192.168.7.20:8787"');
  expect(text.replaceAll('<wbr>', '')).toContain(authority.fingerprint);
  expect(page.headers.get('strict-transport-security')).toBeNull();
  const file = Buffer.from(await (await ask('/authority.crt')).arrayBuffer());
  expect(fingerprintOf(file)).toBe(authority.fingerprint);
  expect((await ask('/api/session', undefined, { method: 'POST' })).status).toBe(426);
  expect((await ask('/api/builds')).headers.get('content-type')).toMatch(/text\/html/);
  // A host that is none is not written into a page.
  expect((await site.request('http://x/', { headers: { host: '"><script>' } })).status).toBe(400);
  const known = plainSite({ authority: null, port: 443 });
  expect(
    (await known.request('http://bench.local/a', { headers: { host: 'bench.local' } })).headers.get('location'),
  ).toBe('https://bench.local:443/a');
});

test('addresses of private networks are found, and names are made fit for a network', () => {
  const at = (address: string, internal = false) => ({ address, internal }) as os.NetworkInterfaceInfo;
  expect(
    privateAddresses({
      lo: [at('127.0.0.1', true)],
      eth0: [at('fd00::7'), at('192.168.7.20'), at('203.0.113.9'), at('fe80::1')],
    }),
  ).toEqual(['192.168.7.20', 'fd00::7']);
  expect(localName('Bench PC.lan')).toBe('bench-pc.local');
  expect(localName('..')).toBe('yosoku.local');
  expect(addressOf('fd00::7', 8787)).toBe('https://[fd00::7]:8787');
});
