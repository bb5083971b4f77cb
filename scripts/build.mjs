import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT, ensurePackages, run, say } from './setup.mjs';

/** Builds the web app and the server when their sources have changed since they were built last. */

const SOURCES = [
  'apps/app',
  'apps/server',
  'packages/core',
  'package-lock.json',
  'scripts/build.mjs',
  'scripts/after-export.mjs',
  'scripts/split-first-page.mjs',
];
const SKIP = new Set(['node_modules', 'dist', '.expo', 'coverage']);
export const WEB_DIR = path.join(ROOT, 'apps/app/dist');
export const SERVER_FILE = path.join(ROOT, 'apps/server/dist/server.mjs');
export const WORKER_FILE = path.join(ROOT, 'apps/server/dist/worker.mjs');
/** What it was built from, beside what was built. */
export const STAMP = path.join(ROOT, 'apps/server/dist/built');
export const MIGRATIONS_DIR = path.join(ROOT, 'apps/server/drizzle');

function* filesUnder(place) {
  const full = path.join(ROOT, place);
  if (!existsSync(full)) return;
  for (const item of readdirSync(full, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const inner = path.join(place, item.name);
    if (item.isDirectory()) {
      if (!SKIP.has(item.name)) yield* filesUnder(inner);
    } else if (!/\.test\.tsx?$|\.d\.ts$/.test(item.name)) yield inner;
  }
}

function fingerprint() {
  const hash = createHash('sha256');
  for (const source of SOURCES) {
    const files = path.extname(source) ? [source] : filesUnder(source);
    for (const file of files) hash.update(file).update(readFileSync(path.join(ROOT, file)));
  }
  return hash.digest('hex');
}

/** One file of plain JavaScript for Node out of a TypeScript program and all that it imports. */
export async function bundleForNode(entry, outfile) {
  const { build } = await import('esbuild');
  const { outputFiles } = await build({
    write: false,
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    logLevel: 'warning',
    // pdfmake and pdfkit read font metrics beside their own files; workerpool and pino start threads and processes from theirs; jsonc-parser comes wrapped so
    // that a bundler cannot see its parts.
    external: ['pdfmake', 'pdfkit', 'workerpool', 'pino', 'jsonc-parser'],
    // Some dependencies still ask for require().
    banner: {
      js: "import{createRequire as makeRequire}from'node:module';const require=makeRequire(import.meta.url);",
    },
  });
  mkdirSync(path.dirname(outfile), { recursive: true });
  // In one step each: a server that runs starts processes from it meanwhile.
  for (const file of outputFiles) {
    writeFileSync(`${file.path}.new`, file.contents);
    renameSync(`${file.path}.new`, file.path);
  }
}

/** The server's processes for long work are started from a bundle wherever it runs, in tests too. */
export const ensureWorker = () => bundleForNode(path.join(ROOT, 'apps/server/src/derive/worker.ts'), WORKER_FILE);

export async function ensureBuilt() {
  const now = fingerprint();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === now && existsSync(SERVER_FILE)) return;
  rmSync(STAMP, { force: true });
  say('building the server');
  await bundleForNode(path.join(ROOT, 'apps/server/src/main.ts'), SERVER_FILE);
  await ensureWorker();
  // Pieces of an earlier build would be kept on every device too.
  rmSync(WEB_DIR, { recursive: true, force: true });
  say('building the web app (about a minute)');
  run('npx', ['expo', 'export', '--platform', 'web', '--clear'], {
    cwd: path.join(ROOT, 'apps/app'),
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      CI: '1',
      NODE_ENV: 'production',
      EXPO_NO_TELEMETRY: '1',
      EXPO_OFFLINE: '1',
      EXPO_UNSTABLE_METRO_OPTIMIZE_GRAPH: '1',
      EXPO_UNSTABLE_TREE_SHAKING: '1',
    },
  });
  const { afterExport } = await import('./after-export.mjs');
  await afterExport(WEB_DIR);
  writeFileSync(STAMP, now);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  ensurePackages();
  await ensureBuilt();
}
