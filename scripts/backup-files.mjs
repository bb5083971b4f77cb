import { spawn } from 'node:child_process';
import {
  closeSync,
  createReadStream,
  createWriteStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
} from 'node:fs';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import zlib from 'node:zlib';

/** Backups of a database: one gzipped file of SQL each, written by mariadb-dump in one snapshot while everybody goes on working. */

const KEPT = 7;
const NAME = /^yosoku-\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}\.sql\.gz$/;
/** The last line of a dump that is whole. */
const COMPLETE = /-- Dump completed/;
/** The first line of what mariadb-dump writes. */
const A_DUMP = /^(\/\*M?!.*\n)?-- MariaDB dump/;
const HEAD = 4096;

const partsOf = (url) => {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: [`--host=${hostname}`, `--port=${port || 3306}`, `--user=${decodeURIComponent(username)}`],
    // Not among the arguments, which every user of the machine can read.
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
    name: pathname.slice(1),
  };
};

async function finished(child, what) {
  let words = '';
  child.stderr.setEncoding('utf8');
  child.stderr.on('data', (text) => (words += text));
  const code = await new Promise((resolve, reject) => child.on('error', reject).on('close', resolve));
  if (code !== 0) throw new Error(`${what} failed: ${words.trim() || `exit ${code}`}`);
}

/** Writes a backup of the database at `url` to `file`: whole, or not at all. */
export async function writeBackup(url, file) {
  const { args, env, name } = partsOf(url);
  mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
  const unfinished = `${file}.unfinished-${process.pid}`;
  try {
    const dump = spawn(
      'mariadb-dump',
      ['--no-defaults', ...args, '--single-transaction', '--quick', '--hex-blob', '--skip-lock-tables', name],
      { env, stdio: ['ignore', 'pipe', 'pipe'] },
    );
    await Promise.all([
      finished(dump, 'The backup'),
      pipeline(dump.stdout, zlib.createGzip(), createWriteStream(unfinished, { mode: 0o600 })),
    ]);
    await checkBackup(unfinished);
    const disk = openSync(unfinished, 'r');
    fsyncSync(disk);
    closeSync(disk);
    renameSync(unfinished, file);
  } finally {
    rmSync(unfinished, { force: true });
  }
}

/** Reads a backup from end to end. Throws unless it is one, and whole. */
export async function checkBackup(file) {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  let head = '';
  let tail = '';
  try {
    await pipeline(createReadStream(file), zlib.createGunzip(), async (text) => {
      for await (const piece of text) {
        const words = piece.toString('latin1');
        if (head.length < HEAD) head += words.slice(0, HEAD);
        tail = (tail + words).slice(-HEAD);
      }
    });
  } catch {
    throw new Error(`${file} is no backup, or it was damaged or cut short. Nothing was changed.`);
  }
  if (!A_DUMP.test(head)) throw new Error(`${file} is no backup of Yosoku's. Nothing was changed.`);
  if (!COMPLETE.test(tail)) throw new Error(`${file} was cut short: its end is missing. Nothing was changed.`);
}

/** Reads the backup in `file` into the database at `url`, which must be empty. */
export async function readBackup(url, file) {
  const { args, env, name } = partsOf(url);
  await checkBackup(file);
  const reader = spawn('mariadb', ['--no-defaults', ...args, '--default-character-set=utf8mb4', name], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  const fed = pipeline(createReadStream(file), zlib.createGunzip(), reader.stdin).catch((error) => {
    // The reader says itself why it stopped reading.
    if (error.code !== 'EPIPE') throw error;
  });
  await Promise.all([finished(reader, 'Reading the backup'), fed]);
}

const stamp = (now) => now.toISOString().slice(0, 19).replaceAll(':', '-');

/** The nightly backups of a folder, oldest first: names and when they were made. */
export const listBackups = (folder) =>
  (existsSync(folder) ? readdirSync(folder) : [])
    .filter((name) => NAME.test(name))
    .sort()
    .map((name) => {
      const [date, time] = name.slice('yosoku-'.length, -'.sql.gz'.length).split('T');
      return { name, at: new Date(`${date}T${time.replaceAll('-', ':')}Z`) };
    });

/** Writes a dated backup into a folder and keeps the last seven. @returns its path. */
export async function keepBackup(url, folder, now = new Date()) {
  const file = path.join(folder, `yosoku-${stamp(now)}.sql.gz`);
  await writeBackup(url, file);
  for (const { name } of listBackups(folder).slice(0, -KEPT)) rmSync(path.join(folder, name));
  return file;
}
