import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import pLimit from 'p-limit';
import { Problem } from '../web/problem';

/** Memory-hard (32 MiB a guess): scrypt, RFC 7914, with the cost that OWASP's password storage sheet gives for N = 2^15. */
const COST = { N: 2 ** 15, r: 8, p: 3 };
const SALT_BYTES = 16;
const KEY_BYTES = 32;
const MAX_MEMORY = 64 * 1024 * 1024;

/**
 * At most so many at once: they are worked out by the same few threads that read files and look up names, and thirty sign-ins must not
 * keep a page from being served.
 */
const AT_ONCE = 2;
/** More in line are sent away: they would wait longer than anybody does. */
const MOST_IN_LINE = 40;
const line = pLimit(AT_ONCE);

function stretch(password: string, salt: Buffer, cost: typeof COST): Promise<Buffer> {
  if (line.pendingCount >= MOST_IN_LINE)
    throw new Problem(503, 'Busy', 'Too many are signing in just now. Try again in a moment.');
  return line(
    () =>
      new Promise<Buffer>((resolve, reject) =>
        scrypt(password.normalize('NFKC'), salt, KEY_BYTES, { ...cost, maxmem: MAX_MEMORY }, (error, key) =>
          error ? reject(error) : resolve(key),
        ),
      ),
  );
}

/** `scrypt$N$r$p$salt$key`, salt and key in base64. */
const written = (salt: Buffer, key: Buffer, { N, r, p }: typeof COST): string =>
  ['scrypt', N, r, p, salt.toString('base64'), key.toString('base64')].join('$');

/**
 * What is stored of a password, with a salt of its own.
 * @param cost N, r and p of scrypt; they are written into the hash, and it is compared by them.
 * @throws Problem 503 where too many wait for theirs.
 */
export async function hashPassword(password: string, cost = COST): Promise<string> {
  const salt = randomBytes(SALT_BYTES);
  return written(salt, await stretch(password, salt, cost), cost);
}

/** To compare with when the name is unknown: as dear as any, and no password is known that belongs to it. */
export const HASH_OF_NOBODY = written(randomBytes(SALT_BYTES), randomBytes(KEY_BYTES), COST);

/** Compares in constant time. A hash that cannot be read matches nothing. */
export async function passwordMatches(password: string, hash: string): Promise<boolean> {
  const [scheme, N, r, p, salt, key] = hash.split('$');
  if (scheme !== 'scrypt' || !salt || !key) return false;
  const expected = Buffer.from(key, 'base64');
  const found = await stretch(password, Buffer.from(salt, 'base64'), { N: Number(N), r: Number(r), p: Number(p) });
  return found.length === expected.length && timingSafeEqual(found, expected);
}
