import type { Pool } from 'mysql2/promise';
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible';
import { Problem } from '../web/problem';

const WINDOW_SECONDS = 15 * 60;
const PER_NAME = 10;
const PER_ADDRESS = 60;

/** Limits failed sign-ins by name and by address. Counted in the database, so that every server process knows. */
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
      duration: WINDOW_SECONDS,
    });
  const byName = limiter('name', PER_NAME);
  const byAddress = limiter('address', PER_ADDRESS);

  return {
    /** Counts an attempt before the password is looked at. Throws a 429 problem when there were too many. */
    async count(signInName: string, address: string): Promise<void> {
      try {
        await byAddress.consume(address);
        await byName.consume(signInName);
      } catch (refused) {
        if (!(refused instanceof RateLimiterRes)) throw refused;
        const minutes = Math.max(1, Math.ceil(refused.msBeforeNext / 60_000));
        throw new Problem(
          429,
          'Too many attempts',
          `Too many sign-ins failed. Wait ${minutes} ${minutes === 1 ? 'minute' : 'minutes'} and try again.`,
        );
      }
    },
    /** A success wipes the failures of that name, and takes itself off the address's count. */
    async forgive(signInName: string, address: string): Promise<void> {
      await Promise.all([byName.delete(signInName), byAddress.reward(address)]);
    },
  };
}

export type Attempts = ReturnType<typeof makeAttempts>;
