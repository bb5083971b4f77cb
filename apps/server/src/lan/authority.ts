import 'reflect-metadata';
import { createHash, webcrypto } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isIPv4 } from 'node:net';
import path from 'node:path';
import { GeneralName, GeneralSubtree, GeneralSubtrees, NameConstraints } from '@peculiar/asn1-x509';
import { AsnConvert } from '@peculiar/asn1-schema';
import * as x509 from '@peculiar/x509';

x509.cryptoProvider.set(webcrypto);

type Key = webcrypto.CryptoKey;

/** Key and certificate that a server shows, PEM. */
export interface ServerCertificate {
  readonly key: string;
  readonly cert: string;
}

export interface Authority {
  /** The authority's own certificate, DER: what a phone takes in. */
  readonly file: Buffer;
  /** SHA-256 of it, in pairs: compared by eye on both screens. */
  readonly fingerprint: string;
  /** A certificate for these names and addresses, made anew when it runs out soon or does not cover them. */
  readonly certificateFor: (names: readonly string[], now?: Date) => Promise<ServerCertificate>;
}

const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;
const DAY_MS = 24 * 3600_000;
/** Ten years: a phone takes it in once. */
const AUTHORITY_DAYS = 3650;
/** Browsers believe no server's certificate for longer than 398 days. */
const SERVER_DAYS = 397;
const RENEW_DAYS = 30;
/** Clocks of phones are off by hours: valid since yesterday. */
const SINCE_DAYS = 1;

/**
 * Where the authority may speak for a server: on private networks, on this machine, and on names under .local. Whoever steals its key can pretend
 * to be no bank. RFC 1918, 3927, 4193, 4291, 6598, 6762.
 */
const PERMITTED = {
  dns: ['local', 'localhost'],
  ip: [
    '10.0.0.0/8',
    '100.64.0.0/10',
    '127.0.0.0/8',
    '169.254.0.0/16',
    '172.16.0.0/12',
    '192.168.0.0/16',
    '::1/128',
    'fc00::/7',
    'fe80::/10',
  ],
} as const;

const subtrees = new GeneralSubtrees([
  ...PERMITTED.dns.map((dNSName) => new GeneralSubtree({ base: new GeneralName({ dNSName }) })),
  ...PERMITTED.ip.map((iPAddress) => new GeneralSubtree({ base: new GeneralName({ iPAddress }) })),
]);
const constraints = new x509.Extension(
  '2.5.29.30',
  true,
  AsnConvert.serialize(new NameConstraints({ permittedSubtrees: subtrees })),
);

const makeKeys = (): Promise<webcrypto.CryptoKeyPair> =>
  webcrypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);

const keyToPem = async (key: Key): Promise<string> =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');

async function keyFromPem(pem: string): Promise<Key> {
  const [bytes] = x509.PemConverter.decode(pem);
  if (!bytes) throw new Error('no key');
  return webcrypto.subtle.importKey('pkcs8', bytes, ALGORITHM, true, ['sign']);
}

/** Written whole or not at all; nobody else reads a key. */
function put(file: string, text: string): void {
  writeFileSync(`${file}.new`, text, { mode: 0o600 });
  chmodSync(`${file}.new`, 0o600);
  renameSync(`${file}.new`, file);
}

const lasting = (days: number, now: Date) => ({
  notBefore: new Date(now.getTime() - SINCE_DAYS * DAY_MS),
  notAfter: new Date(now.getTime() + days * DAY_MS),
});

async function makeAuthority(folder: string, shopName: string): Promise<void> {
  const keys = await makeKeys();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    name: `CN=${shopName}`,
    keys,
    signingAlgorithm: ALGORITHM,
    ...lasting(AUTHORITY_DAYS, new Date()),
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      constraints,
    ],
  });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  put(path.join(folder, 'authority.key'), await keyToPem(keys.privateKey));
  put(path.join(folder, 'authority.crt'), certificate.toString('pem'));
}

/** Two halves of a pair that were parted are no pair, and a new one would lock out every phone: that is for the owner to say. */
function unreadable(folder: string, why: string): Error {
  return new Error(
    `The authority under ${folder} cannot be used: ${why}. Bring back authority.key and authority.crt from a copy, or remove both: a new one is made then, and every phone has to take it in anew.`,
  );
}

/**
 * The certificate authority of this installation, made at the first call and kept.
 * @param folder where its files are: `authority.key`, `authority.crt`, `server.key`, `server.crt`.
 * @param name what a phone shows of it.
 * @throws where one of its files is there without the other, or cannot be read.
 */
export async function openAuthority(folder: string, name: string): Promise<Authority> {
  const [keyFile, certFile] = [path.join(folder, 'authority.key'), path.join(folder, 'authority.crt')];
  if (existsSync(keyFile) !== existsSync(certFile)) throw unreadable(folder, 'one of its two files is missing');
  if (!existsSync(keyFile)) await makeAuthority(folder, name);
  let signingKey: Key;
  let authority: x509.X509Certificate;
  try {
    signingKey = await keyFromPem(readFileSync(keyFile, 'utf8'));
    authority = new x509.X509Certificate(readFileSync(certFile, 'utf8'));
  } catch {
    throw unreadable(folder, 'they cannot be read');
  }
  if (authority.notAfter.getTime() < Date.now()) throw unreadable(folder, 'its time is over');
  const file = Buffer.from(authority.rawData);

  async function make(names: readonly string[], now: Date): Promise<ServerCertificate> {
    const keys = await makeKeys();
    const certificate = await x509.X509CertificateGenerator.create({
      subject: `CN=${names[0] ?? 'localhost'}`,
      issuer: authority.subjectName,
      publicKey: keys.publicKey,
      signingKey,
      signingAlgorithm: ALGORITHM,
      ...lasting(SERVER_DAYS, now),
      extensions: [
        new x509.BasicConstraintsExtension(false, undefined, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
        new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
        new x509.SubjectAlternativeNameExtension(
          names.map((each) => ({ type: isAddress(each) ? ('ip' as const) : ('dns' as const), value: each })),
        ),
        await x509.AuthorityKeyIdentifierExtension.create(authority),
        await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      ],
    });
    return { key: await keyToPem(keys.privateKey), cert: certificate.toString('pem') };
  }

  return {
    file,
    fingerprint: fingerprintOf(file),
    async certificateFor(names, now = new Date()) {
      const [key, cert] = [path.join(folder, 'server.key'), path.join(folder, 'server.crt')];
      if (existsSync(key) && existsSync(cert)) {
        const kept = { key: readFileSync(key, 'utf8'), cert: readFileSync(cert, 'utf8') };
        if (await stillGood(kept.cert, names, authority, now)) return kept;
      }
      const made = await make(names, now);
      put(key, made.key);
      put(cert, made.cert);
      return made;
    },
  };
}

const isAddress = (name: string): boolean => isIPv4(name) || name.includes(':');

async function stillGood(
  pem: string,
  names: readonly string[],
  authority: x509.X509Certificate,
  now: Date,
): Promise<boolean> {
  try {
    const certificate = new x509.X509Certificate(pem);
    const covers = certificate.getExtension(x509.SubjectAlternativeNameExtension)?.names.toJSON() ?? [];
    return (
      certificate.notAfter.getTime() - now.getTime() > RENEW_DAYS * DAY_MS &&
      names.every((name) => covers.some(({ value }) => value === name)) &&
      (await certificate.verify({ publicKey: authority, signatureOnly: true }))
    );
  } catch {
    return false;
  }
}

/** `fingerprintOf(der)` is "3A:07:…", 32 pairs. */
export const fingerprintOf = (der: Uint8Array): string =>
  (createHash('sha256').update(der).digest('hex').toUpperCase().match(/../g) ?? []).join(':');
