import type { Pool } from 'mysql2/promise';
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible';
import { Problem } from '../web/problem';

/** Failures are remembered for so long, s. */
const WINDOW = 60 * 60;
/** Failures without any wait, and the waits from there on, s: 5, 10, 20, … up to a quarter of an hour. */
const FREE = 5;
const FIRST_WAIT = 5;
const LONGEST_WAIT = 15 * 60;
/** Of an address with any names, and of a name from any addresses, within the window. */
const FREE_FOR_ADDRESS = 60;
const FREE_FOR_NAME = 100;

/** Seconds until the attempt after this one, when so many have failed: `waitAfter(5, 5)` is 5, `waitAfter(7, 5)` is 20. */
export const waitAfter = (failures: number, free: number): number =>
  Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** Math.max(0, Math.min(20, failures - free)));

/** Who tries: under which name, from where, and on which device if that is known from before. */
export interface Attempt {
  readonly name: string;
  readonly address: string;
  /** Hash of the token of a device on which this builder has signed in before; else null. */
  readonly device: string | null;
}

const tooMany = (seconds: number): Problem => {
  const minutes = Math.ceil(seconds / 60);
  const words = seconds < 60 ? `${seconds} seconds` : minutes === 1 ? '1 minute' : `${minutes} minutes`;
  return new Problem(429, 'Too many attempts', `Too many sign-ins failed. Wait ${words} and try again.`);
};

/**
 * Slows guessing down without locking anybody out. Failures are counted for a name together with an address, each wait twice the last; for an address; and for
 * a name from everywhere. A device on which the builder has signed in before has a count of its own, which no flood from elsewhere fills.
 * Counted in the database, so that every server process knows.
 */
export function makeAttempts(pool: Pool, dbName: string) {
  const limiter = (keyPrefix: string, points: number) =>
    new RateLimiterMySQL({
      // The library speaks the callback interface, which lies under the promised one.
      storeClient: pool.pool,
      storeType: 'pool',
      dbName,
      tableName: 'sign_in_attempt',
      tableCreated: true,
      keyPrefix,
      points,
      duration: WINDOW,
    });
  const failures = limiter('fail', Number.MAX_SAFE_INTEGER);
  /** Lets one through, and the next when its wait is over. */
  const gate = limiter('gate', 1);

  async function passGate(key: string, wait: number): Promise<void> {
    try {
      await gate.consume(key, 1, { customDuration: wait });
    } catch (refused) {
      if (!(refused instanceof RateLimiterRes)) throw refused;
      throw tooMany(Math.max(1, Math.ceil(refused.msBeforeNext / 1000)));
    }
  }

  async function countOne(key: string, free: number): Promise<void> {
    const before = (await failures.get(key))?.consumedPoints ?? 0;
    if (before >= free) await passGate(key, waitAfter(before, free));
    const { consumedPoints } = await failures.penalty(key);
    // Many at the same moment all found it free: no more than the free ones get through without the gate.
    if (before < free && consumedPoints > free) await passGate(key, waitAfter(consumedPoints, free));
  }

  const countsOf = ({ name, address, device }: Attempt): readonly (readonly [key: string, free: number])[] =>
    device
      ? [[`device ${device} ${name}`, FREE]]
      : [
          [`pair ${name} ${address}`, FREE],
          [`address ${address}`, FREE_FOR_ADDRESS],
          [`name ${name}`, FREE_FOR_NAME],
        ];

  return {
    /** Counts an attempt before the password is looked at: of many at once no more than the free ones get through. Throws a 429 problem while one must wait. */
    async count(attempt: Attempt): Promise<void> {
      for (const [key, free] of countsOf(attempt)) await countOne(key, free);
    },
    /** A success wipes the count of that name from there, and takes itself off the others. */
    async forgive(attempt: Attempt): Promise<void> {
      for (const [at, [key]] of countsOf(attempt).entries()) {
        if (at === 0) await Promise.all([failures.delete(key), gate.delete(key)]);
        else await failures.reward(key);
      }
    },
  };
}

export type Attempts = ReturnType<typeof makeAttempts>;
