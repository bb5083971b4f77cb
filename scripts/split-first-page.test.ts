import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import vm from 'node:vm';
import { pathToFileURL } from 'node:url';

/** The script is a module of its own kind, which the tests' own loader does not read. */
const split = (at: string): void => {
  const script = pathToFileURL(path.join(__dirname, 'split-first-page.mjs')).href;
  const program = `import { splitFirstPage } from '${script}'; await splitFirstPage(process.argv[1]);`;
  execFileSync(process.execPath, ['--input-type=module', '-e', program, at]);
};

const folder = mkdtempSync(path.join(os.tmpdir(), 'yosoku-split-'));
const scripts = path.join(folder, '_expo/static/js/web');
afterAll(() => rmSync(folder, { recursive: true }));
const define = (id: number, needs: unknown): string =>
  `__d(function(g,r,i,a,m,e,d){const t=\`\nlines\`},${id},${JSON.stringify(needs)});\n`;

test('the first page loads what it needs and no more; every other page brings along what it needs of the rest, once', async () => {
  mkdirSync(scripts, { recursive: true });
  const put = (name: string, text: string): void => writeFileSync(path.join(scripts, name), text);
  // 1 is needed by the sign-in through 2; 4 by the list alone; 3 by nobody but 4; 5 by a reading, and what may be missing besides.
  put('__common-0.js', define(1, []) + define(2, [1]) + define(3, []) + define(4, [3, 1]) + define(5, [null, 1]));
  const paths = { 20: '/sign-in', 21: '/list', 22: '/read' };
  put('entry-0.js', `${define(10, { 0: 11, paths })}__r(403);\n__r(10);`);
  put('_layout-0.js', define(11, []));
  put('sign-in-0.js', define(20, [2]));
  put('list-0.js', define(21, [4]));
  put('read-0.js', define(22, [5]));
  put('about-0.js', define(23, []));
  const tag = (name: string): string => `<script src="/_expo/static/js/web/${name}" defer></script>`;
  writeFileSync(
    path.join(folder, 'index.html'),
    `<head></head>${tag('runtime.js')}${tag('__common-0.js')}${tag('entry-0.js')}`,
  );
  split(folder);

  const names = readdirSync(scripts);
  const text = (start: string): string =>
    readFileSync(path.join(scripts, names.find((name) => name.startsWith(start)) ?? ''), 'utf8');
  const ids = (start: string) => [...text(start).matchAll(/,(\d+),\[/g)].map(([, id]) => id);
  expect([ids('__first'), ids('__work'), ids('__rest')]).toEqual([['1', '2'], ['5'], ['3', '4']]);
  expect(names).not.toContain('__common-0.js');
  const page = readFileSync(path.join(folder, 'index.html'), 'utf8');
  expect(page).toMatch(/runtime\.js.*__late-[0-9a-f]{32}\.js.*__first-[0-9a-f]{32}\.js.*entry-0\.js/);

  expect(page).toContain('<link rel="preload" as="script" href="/_expo/static/js/web/sign-in-0.js"></head>');

  const asked: string[] = [];
  let broken = true;
  const world = vm.createContext({}) as { __loadBundleAsync: (piece: string) => Promise<unknown> };
  vm.runInContext(text('__late'), world);
  world.__loadBundleAsync = async (piece) => {
    asked.push(piece);
    if (broken && piece.includes('__rest')) throw new Error('no network');
    return piece;
  };
  const [signIn, list, read, about] = ['sign-in', 'list', 'read', 'about'].map(
    (name) => `/_expo/static/js/web/${name}-0.js`,
  ) as [string, string, string, string];
  expect(await world.__loadBundleAsync(signIn)).toBe(signIn);
  expect(await world.__loadBundleAsync(about)).toBe(about);
  expect(asked).toEqual([signIn, about]);
  expect(await world.__loadBundleAsync(read)).toBe(read);
  expect(asked.slice(2)).toEqual([read, expect.stringContaining('__work')]);
  await expect(world.__loadBundleAsync(list)).rejects.toThrow('no network');
  // It is asked for again, and when it has come no more.
  broken = false;
  expect(await world.__loadBundleAsync(list)).toBe(list);
  expect(await world.__loadBundleAsync(list)).toBe(list);
  expect(asked.filter((piece) => piece.includes('__rest'))).toHaveLength(2);
  expect(asked.filter((piece) => piece.includes('__work'))).toHaveLength(1);
});
