import { existsSync, mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { ROOT, begin, freePort, newFolder, run, signal, tidy } from './commands';

afterEach(tidy);

const scripts = Object.keys(
  (JSON.parse(readFileSync(path.join(ROOT, 'package.json'), 'utf8')) as { scripts: Record<string, string> }).scripts,
);

/** A check that does its work elsewhere. */
const elsewhere = (file: string) => async (): Promise<void> => expect(existsSync(path.join(ROOT, file))).toBe(true);

/** Every script of package.json, and how it is seen to work. A new script is a line here. */
const SMOKE: Readonly<Record<string, () => Promise<void>>> = {
  start: elsewhere('scripts/standing-up.test.ts'),
  backup: elsewhere('scripts/standing-up.test.ts'),
  restore: elsewhere('scripts/standing-up.test.ts'),
  'let-in': elsewhere('scripts/standing-up.test.ts'),
  check: elsewhere('scripts/standing-up.test.ts'),
  chaos: elsewhere('scripts/standing-up.test.ts'),
  test: async () => {
    expect(await run('npm test -- --only nothing-at-all')).toMatchObject({
      code: 1,
      out: expect.stringMatching(/Known are/),
    });
  },
  unit: async () => {
    const { code, out } = await run('npm run unit -- units.test');
    expect(code).toBe(0);
    expect(out.match(/^PASS .*$/gm)).toEqual([expect.stringMatching(/units\.test\.ts/)]);
  },
  // This check is one of them.
  api: elsewhere('scripts/every-script.test.ts'),
  e2e: elsewhere('e2e/theme.test.ts'),
  // The same lines as in `npm test`.
  lint: elsewhere('scripts/test.mjs'),
  house: elsewhere('scripts/test.mjs'),
  format: async () => expect((await run('npm run format -- --version')).code).toBe(0),
  'format:check': async () => expect((await run('npm run format:check -- --version')).code).toBe(0),
  typecheck: elsewhere('scripts/test.mjs'),
  build: async () => expect((await run('npm run build')).code).toBe(0),
  bench: async () => {
    expect((await run('npm run bench -- zero')).out).toMatch(/TDC and its uncertainty from one pass: [\d.]+ µs/);
    expect((await run('npm run bench -- nothing')).code).toBe(1);
  },
  report: async () => {
    const { out } = await run('npm run -s report -- docs/example.yosoku.json');
    expect(JSON.parse(out)).toMatchObject({ verdict: { headline: expect.stringMatching(/late/) } });
  },
  'check-line': async () => {
    const good = await run('npm run -s check-line -- yb1 crank-1 1207 60350 69.250 1.2700 - mm 6714b5f1');
    expect(good).toMatchObject({ code: 0, out: expect.stringMatching(/^accepted: crank-1, line 1207, 69\.25°/m) });
    const damaged = await run('npm run -s check-line -- yb1 crank-1 1207 60350 69.251 1.2700 - mm 6714b5f1');
    expect(damaged).toMatchObject({ code: 1, out: expect.stringMatching(/the checksum should be [0-9a-f]{8}/) });
  },
  schemas: async () => {
    const folder = newFolder();
    expect((await run(`npm run schemas -- ${folder}`)).code).toBe(0);
    for (const name of readdirSync(folder))
      expect(readFileSync(path.join(folder, name), 'utf8')).toBe(readFileSync(path.join(ROOT, 'docs', name), 'utf8'));
  },
  judgement: async () => {
    const file = path.join(newFolder(), 'judgement.md');
    await run(`node --import tsx packages/core/bin/judgement.ts 1 1 ${file}`);
    expect(readFileSync(file, 'utf8')).toMatch(/By card and reader/);
  },
  'fault-table': async () => {
    const file = path.join(newFolder(), 'faults.md');
    await run(`node --import tsx packages/core/bin/fault-table.ts 1 ${file}`);
    expect(readFileSync(file, 'utf8')).toMatch(/Measured on virtual engines/);
  },
  screenshots: async () => {
    const OUT = mkdtempSync(path.join(os.tmpdir(), 'yosoku-commands-'));
    expect((await run('npm run screenshots', { OUT, ONLY: 'phone-builds' })).code).toBe(0);
    expect(readdirSync(OUT)).toEqual(['phone-builds.png']);
  },
  'rebuild-summaries': async () => {
    const { code, out } = await run('npm run rebuild-summaries', { YOSOKU_STATE: newFolder() });
    expect(out).toMatch(/0 builds worked out anew/);
    expect(code).toBe(0);
  },
  'bench-box': async () => {
    const { code, out } = await run(
      `npm run -s bench-box -- --key nobody --url http://127.0.0.1:${await freePort()} --rate 3`,
    );
    expect([code, out.trim()]).toEqual([2, '--rate: 5 to 1000 lines a second']);
    const box = begin(`npm run -s bench-box -- --key nobody --url http://127.0.0.1:${await freePort()}`);
    await box.says(/unplugged .*comes back/);
  },
  dev: async () => {
    const ports = { API_PORT: String(await freePort()), WEB_PORT: String(await freePort()) };
    // So it watches no files: nobody changes one here, and to begin that takes longer than all else.
    const dev = begin('npm run dev', { ...ports, CI: '1', YOSOKU_STATE: newFolder() });
    await dev.says(/Yosoku is ready at/);
    await dev.says(/Waiting on http|Web is waiting on/i);
    const page = await fetch(`http://127.0.0.1:${ports.WEB_PORT}/`);
    expect([page.status, await page.text()]).toEqual([200, expect.stringMatching(/<script/)]);
    signal(dev.child, 'SIGTERM');
    await dev.ended;
  },
};

test('no script is without its check', () => {
  expect(Object.keys(SMOKE).sort()).toEqual([...scripts].sort());
});

test.each(Object.entries(SMOKE))('npm run %s', async (_name, works) => works());

test('a change of the schema is a migration: there is none to be written', async () => {
  const { out } = await run('npm run db:generate -w @yosoku/server');
  expect(out).toMatch(/No schema changes/);
});
