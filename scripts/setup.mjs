import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** Brings a fresh machine to the point where Yosoku can be built: Debian packages, npm packages. Quick when all is there. */

export const ROOT = path.resolve(import.meta.dirname, '..');
/** Everything that this checkout makes for itself at run time. Git-ignored. `YOSOKU_STATE` puts it elsewhere. */
export const STATE = path.resolve(ROOT, process.env.YOSOKU_STATE ?? '.yosoku');

export const say = (text) => console.log(`· ${text}`);

export function fail(text) {
  console.error(text);
  process.exit(1);
}

/** Runs a command in the project's folder; its output goes to the terminal. Ends the process when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
  if (result.error) fail(`${command} could not be started: ${result.error.message}`);
  if (result.status !== 0) process.exit(result.status ?? 1);
}

const onPath = (program) =>
  (process.env.PATH ?? '').split(path.delimiter).some((folder) => existsSync(path.join(folder, program))) ||
  existsSync(path.join('/usr/sbin', program));

/** Debian packages of each program. `my_print_defaults`, which creating a database needs, has moved from one package to another. */
const DEBIAN = {
  mariadbd: { mariadbd: 'mariadb-server-core', my_print_defaults: 'mariadb-client-core' },
  'mariadb-dump': { 'mariadb-dump': 'mariadb-client', mariadb: 'mariadb-client-core' },
  pdftotext: { pdftotext: 'poppler-utils' },
  chromium: { chromium: 'chromium' },
  chromedriver: { chromedriver: 'chromium-driver' },
  certutil: { certutil: 'libnss3-tools' },
};

/** Installs the Debian packages of the named programs where they are missing. */
export function ensurePrograms(...programs) {
  const missing = programs
    .flatMap((program) => Object.entries(DEBIAN[program]))
    .flatMap(([needed, from]) => (onPath(needed) ? [] : [from]));
  if (missing.length === 0) return;
  const root = process.getuid?.() === 0;
  const list = missing.join(' ');
  if (!onPath('apt-get') || (!root && !onPath('sudo')))
    fail(`Please install these first, as root: apt-get install ${list}`);
  say(`installing Debian packages: ${list}`);
  const apt = (...args) => {
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const line = root ? ['apt-get', ...args] : ['sudo', 'apt-get', ...args];
    run(line[0], line.slice(1), { env, stdio: ['ignore', 'ignore', 'inherit'] });
  };
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', ...missing);
}

/** Runs `npm ci` when the lockfile is not the one that was installed last. */
export function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
  const stamp = path.join(ROOT, 'node_modules', '.yosoku-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('installing npm packages (one to three minutes the first time)');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, lock);
}

export function ensureState() {
  mkdirSync(STATE, { recursive: true });
}
