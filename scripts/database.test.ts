import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { newFolder, run, tidy } from './commands';

afterEach(tidy);

/** Starts the database of a folder, does something with it, and stops it. */
const start = (folder: string, sql = 'select 1', more: Readonly<Record<string, string>> = {}) =>
  run('node scripts/start-database-for-a-check.mjs', { FOLDER: folder, SQL: sql, ...more });
const filesIn = (folder: string): string[] => readdirSync(folder, { recursive: true }).map(String).sort();

test('a database that has lost its stamp is the same database', async () => {
  const folder = path.join(newFolder(), 'db');
  expect((await start(folder, 'create table kept (id int primary key)')).code).toBe(0);
  rmSync(path.join(folder, 'created'));
  const again = await start(folder, 'insert into kept values (7)');
  expect(again).toMatchObject({ code: 0 });
  expect(existsSync(path.join(folder, 'created'))).toBe(true);
});

test('a folder that holds something else is refused with what to do, and not touched', async () => {
  const folder = path.join(newFolder(), 'db');
  mkdirSync(path.join(folder, 'data'), { recursive: true });
  writeFileSync(path.join(folder, 'holiday.jpg'), 'not ours');
  writeFileSync(path.join(folder, 'data/ledger'), 'not ours either');
  const before = filesIn(folder);
  const { code, out } = await start(folder);
  expect(code).not.toBe(0);
  expect(out).toMatch(
    /is not empty, and what is in it is no database of Yosoku's\. Nothing was touched\. Move it away/,
  );
  expect(filesIn(folder)).toEqual(before);
});

test('the remains of a creation that was interrupted are set aside, not deleted', async () => {
  const above = newFolder();
  const folder = path.join(above, 'db');
  mkdirSync(path.join(folder, 'data'), { recursive: true });
  writeFileSync(path.join(folder, 'creating'), '');
  writeFileSync(path.join(folder, 'data/ibdata1'), 'half a database');
  const { code, out } = await start(folder);
  expect(code).toBe(0);
  const aside = readdirSync(above).find((name) => name.startsWith('db.set-aside-20')) ?? '';
  expect(out).toContain(aside);
  expect(readFileSync(path.join(above, aside, 'data/ibdata1'), 'utf8')).toBe('half a database');
});

test('a stamp without a database behind it is no reason to begin anew', async () => {
  const folder = path.join(newFolder(), 'db');
  mkdirSync(folder);
  writeFileSync(path.join(folder, 'created'), '');
  const { code, out } = await start(folder);
  expect(code).not.toBe(0);
  expect(out).toMatch(/not whole: its data or its secret is missing\. Nothing was touched/);
  expect(filesIn(folder)).toEqual(['created']);
});

test('what another database keeps for the moment outlives a start', async () => {
  const others = path.join(os.tmpdir(), `#sql-temptable-${process.pid.toString(16)}-1-1.MAD`);
  writeFileSync(others, 'rows of a query that is at work');
  try {
    expect((await start(path.join(newFolder(), 'db'))).code).toBe(0);
    expect(existsSync(others)).toBe(true);
  } finally {
    rmSync(others, { force: true });
  }
});

test('of the nightly backups the last seven are kept, and nothing else in their folder is touched', async () => {
  const [folder, to] = [path.join(newFolder(), 'db'), newFolder()];
  writeFileSync(path.join(to, 'a-note.txt'), 'not a backup');
  expect(await start(folder, 'create table kept (id int primary key)', { BACKUPS: '9', BACKUPS_TO: to })).toMatchObject(
    {
      code: 0,
    },
  );
  const days = [3, 4, 5, 6, 7, 8, 9].map((day) => `yosoku-2026-01-0${day}T03-00-00.sql.gz`);
  expect(filesIn(to)).toEqual(['a-note.txt', ...days]);
});
