import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { begin, childOf, freePort, health, newFolder, run, tidy } from './commands';

afterEach(tidy);

async function startApp(state: string) {
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  const app = begin('node scripts/start.mjs', { YOSOKU_STATE: state, PORT: String(port), HOST: '127.0.0.1' });
  await app.says(/is ready at/);
  const json = { 'content-type': 'application/json', origin: base };
  const body = JSON.stringify({ signInName: 'mara', password: 'layout-dye-demo' });
  const answer = await fetch(`${base}/api/session`, { method: 'POST', headers: json, body });
  const headers = { ...json, cookie: answer.headers.get('set-cookie')?.split(';')[0] ?? '' };
  const get = async (place: string): Promise<unknown> => {
    const answer = await fetch(`${base}/api${place}`, { headers });
    if (!answer.ok) throw new Error(`${place}: ${answer.status} ${await answer.text()}`);
    return answer.json();
  };
  /** The Report of every build, by its name. */
  const reports = async (): Promise<Record<string, unknown>> => {
    const { builds } = (await get('/builds')) as { builds: { id: string; name: string }[] };
    const all = builds.map(async ({ id, name }) => [`${name} ${id}`, await get(`/builds/${id}/report`)] as const);
    return Object.fromEntries(await Promise.all(all));
  };
  return { app, base, headers, port, reports, pid: app.child.pid ?? 0 };
}

test('server and database that die are started again; a backup taken meanwhile brings every Report back; what is under way is finished', async () => {
  const state = newFolder();
  const { app, base, headers, port, reports, pid } = await startApp(state);
  const before = await reports();
  expect(Object.keys(before).length).toBe(7);

  // A backup while it runs; what is said of it, and of how it stands.
  const file = path.join(newFolder(), 'all.sql.gz');
  expect(await run(`npm run -s backup -- ${file} --demo`, { YOSOKU_STATE: state })).toMatchObject({ code: 0 });
  const check = await run('npm run -s check -- --demo', { YOSOKU_STATE: state });
  expect(check.out).toMatch(/database\s+10\..*schema\s+\d{4}_[\w-]+, up to date.*free disk\s+[\d.]+ GB.*last backup/s);
  expect(check.out.trim().split('\n').length).toBeLessThan(40);
  const code = await run('npm run -s let-in -- mara --demo', { YOSOKU_STATE: state });
  expect(code.out).toMatch(/Code for mara: [A-Z0-9]{8}/);
  expect((await run('npm run -s let-in -- nobody --demo', { YOSOKU_STATE: state })).code).not.toBe(0);

  process.kill(childOf(pid, /server\.mjs/), 'SIGKILL');
  await app.says(/the server has ended by itself \(SIGKILL\)/);
  await health(base, 200);
  expect(await reports()).toEqual(before);
  process.kill(Number(readFileSync(path.join(state, 'db/pid'), 'utf8')), 'SIGKILL');
  await app.says(/the database has ended by itself \(SIGKILL\)/);
  await health(base, 200);
  expect(await reports()).toEqual(before);

  // A second one on the same port is told so at once, and nothing is restarted in vain.
  const second = await run('node scripts/start.mjs', {
    YOSOKU_STATE: newFolder(),
    PORT: String(port),
    HOST: '127.0.0.1',
  });
  expect(second.code).toBe(1);
  expect(second.out).toMatch(/Port \d+ is in use.*cannot run here/s);
  // And one from the same folder.
  const twice = await run('node scripts/start.mjs', { YOSOKU_STATE: state, PORT: String(await freePort()) });
  expect(twice.out).toMatch(/is running from this folder already/);

  const restoring = await run(`npm run -s restore -- ${file} --demo`, { YOSOKU_STATE: state });
  expect(restoring).toMatchObject({ code: 1, out: expect.stringMatching(/Stop it first/) });

  // Told to stop in the middle of forty requests: each has its answer.
  const ids = Object.keys(before).map((name) => name.split(' ').at(-1));
  const asked = Array.from({ length: 40 }, (_, n) =>
    fetch(`${base}/api/builds/${ids[n % ids.length]}/report`, { headers }).then(async (answer) => {
      await answer.text();
      return answer.status;
    }),
  );
  // A stream that would never end by itself does not hold it up.
  const stream = await fetch(`${base}/api/builds/${ids[0]}/stream`, { headers });
  await new Promise((resolve) => setTimeout(resolve, 30));
  app.child.kill('SIGTERM');
  expect(await Promise.all(asked)).toEqual(Array(40).fill(200));
  await stream.text();
  expect((await app.ended).code).toBe(0);

  // Elsewhere, from the file alone.
  const other = newFolder();
  const spoilt = path.join(newFolder(), 'spoilt.sql.gz');
  writeFileSync(spoilt, readFileSync(file).subarray(0, 2000));
  expect((await run(`npm run -s restore -- ${spoilt} --demo`, { YOSOKU_STATE: other })).out).toMatch(
    /damaged or cut short/,
  );
  expect(await run(`npm run -s restore -- ${file} --demo`, { YOSOKU_STATE: other })).toMatchObject({ code: 0 });
  const again = await run(`npm run -s restore -- ${file} --demo`, { YOSOKU_STATE: other });
  expect(again).toMatchObject({ code: 1, out: expect.stringMatching(/is not empty\. Nothing was changed/) });
  const overwrite = await run(`npm run -s restore -- ${file} --demo --overwrite`, { YOSOKU_STATE: other });
  expect(overwrite).toMatchObject({
    code: 0,
    out: expect.stringMatching(/what the database held is kept in .*before-restore/),
  });
  // As one that an older Yosoku left in the middle of an upgrade: all of it is kept before anything is changed.
  const unmark = {
    FOLDER: path.join(other, 'db'),
    NAME: 'yosoku_demo',
    SQL: "update schema_step set done_at = null where tag like '0006%'",
  };
  expect(await run('node scripts/start-database-for-a-check.mjs', unmark)).toMatchObject({ code: 0 });
  const there = await startApp(other);
  expect(there.app.out()).toMatch(/kept before the upgrade: .*before-upgrade.*\.sql\.gz/);
  expect(await there.reports()).toEqual(before);
  there.app.child.kill('SIGTERM');
  expect((await there.app.ended).code).toBe(0);
});

test('what keeps ending is not started for ever: after five times in a minute it is said why', async () => {
  const folder = newFolder();
  const program = path.join(folder, 'try.mjs');
  writeFileSync(
    program,
    `import { keepRunning } from '${path.resolve(__dirname, 'supervise.mjs')}';
     let runs = 0;
     const words = await keepRunning('server', async () => { runs += 1; return 1; }, () => false, { say: () => {} });
     console.log(runs, words);
     let useless = 0;
     console.log(await keepRunning('server', async () => { useless += 1; return 2; }, () => false), useless);`,
  );
  const { out } = await run(`node ${program}`);
  expect(out).toMatch(/^5 The server ended 5 times within a minute, the last time with 1\. Yosoku stops\./);
  expect(out).toMatch(/cannot run here: its own words stand above\. 1/);
});

test('a short storm: ten kills under load lose nothing', async () => {
  const { code, out } = await run('npm run -s chaos -- --kills 10 --parts kills --pause 400');
  expect(out).toMatch(/lost 0; gaps 0, half batches 0; refused 0, .*failed \(500\) 0/);
  expect(code).toBe(0);
});
