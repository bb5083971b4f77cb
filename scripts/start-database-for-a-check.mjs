import { createConnection } from 'mysql2/promise';
import { startDatabase } from './database.mjs';

/** Starts the database in FOLDER, says SQL to it, and stops it. For checks of how a database folder is treated. */
try {
  const database = await startDatabase(process.env.FOLDER, ['check']);
  const connection = await createConnection({ uri: database.urls.check });
  await connection.query(process.env.SQL);
  await connection.end();
  await database.stop();
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
}
