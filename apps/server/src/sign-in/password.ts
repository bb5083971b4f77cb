import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

/** Memory-hard (32 MiB a guess): scrypt, RFC 7914, with the cost that OWASP's password storage sheet gives for N = 2^15. */
const COST = { N: 2 ** 15, r: 8, p: 3 };
const KEY_BYTES = 32;
const MAX_MEMORY = 64 * 1024 * 1024;

const stretch = (password: string, salt: Buffer, cost: typeof COST): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(password.normalize('NFKC'), salt, KEY_BYTES, { ...cost, maxmem: MAX_MEMORY }, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  );

/** `scrypt$N$r$p$salt$key`, salt and key in base64. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await stretch(password, salt, COST);
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join('$');
}

/** Compares in constant time. A hash that cannot be read matches nothing. */
export async function passwordMatches(password: string, hash: string): Promise<boolean> {
  const [scheme, N, r, p, salt, key] = hash.split('$');
  if (scheme !== 'scrypt' || !salt || !key) return false;
  const expected = Buffer.from(key, 'base64');
  const found = await stretch(password, Buffer.from(salt, 'base64'), { N: Number(N), r: Number(r), p: Number(p) });
  return found.length === expected.length && timingSafeEqual(found, expected);
}
