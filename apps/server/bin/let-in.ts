import { openDatabase } from '../src/db/database';
import { letIn } from '../src/sign-in/accounts';

/** Prints a one-time code for the builder whose sign-in name is given. For whoever sits at the machine: he has the database anyway. */
const [signInName = ''] = process.argv.slice(2);
const database = openDatabase(process.env.DATABASE_URL ?? '');
const code = await letIn(database.db, signInName);
await database.close();
if (code === null) {
  console.error(`Nobody here has the sign-in name “${signInName}”.`);
  process.exitCode = 2;
} else
  console.log(
    `Code for ${signInName}: ${code}\nGood once, for a day: on the sign-in page, under “I have a code for a new password”.`,
  );
