import { withOwnDatabase } from './own-database.mjs';
import { fail, run } from './setup.mjs';

/** `npm run let-in -- SIGN-IN-NAME [--demo]`: a one-time code for somebody who has forgotten the password, the owner too. */

const [name, ...more] = process.argv.slice(2).filter((each) => each !== '--demo');
if (!name || name.startsWith('--') || more.length > 0) fail('usage: npm run let-in -- SIGN-IN-NAME [--demo]');
await withOwnDatabase(
  (DATABASE_URL) =>
    run(process.execPath, ['--import', 'tsx', 'apps/server/bin/let-in.ts', name], {
      env: { ...process.env, DATABASE_URL },
    }),
  { demo: process.argv.includes('--demo') },
);
