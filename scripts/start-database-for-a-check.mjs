import { createConnection } from 'mysql2/promise';
import { keepBackup } from './backup-files.mjs';
import { startDatabase } from './database.mjs';

/**
 * Starts the database in FOLDER, says SQL to the one called NAME in it, takes BACKUPS nightly backups into BACKUPS_TO, a day apart, and stops it. For checks of how a
 * database folder is treated.
 */
const name = process.env.NAME ?? 'check';
try {
  const database = await startDatabase(process.env.FOLDER, [name]);
  const connection = await createConnection({ uri: database.urls[name] });
  await connection.query(process.env.SQL);
  await connection.end();
  for (let day = 1; day <= Number(process.env.BACKUPS ?? 0); day += 1)
    await keepBackup(database.urls[name], process.env.BACKUPS_TO, new Date(Date.UTC(2026, 0, day, 3)));
  await database.stop();
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
}
