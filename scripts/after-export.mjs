import { readFile, readdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import zlib from 'node:zlib';
import { build } from 'esbuild';
import { injectManifest } from 'workbox-build';
import { ROOT } from './setup.mjs';
import { splitFirstPage } from './split-first-page.mjs';

const gzip = promisify(zlib.gzip);
const brotli = promisify(zlib.brotliCompress);
const TEXT = /\.(html|js|css|json|svg|ttf|webmanifest)$/;
const SMALLEST_WORTH_IT = 1024;

const SERVICE_WORKER = path.join(ROOT, 'apps/app/service-worker/sw.ts');
const FIRST_PAGE = path.join(ROOT, 'apps/app/first-page');
/** The page of a first visit, and what it can do before the program is there; the server sends it under this name. */
const FIRST = { page: 'first.html', script: 'first-page.js' };
/** What a device asks for before it puts an app among its own; the line above the page in the colour of either theme. */
const INSTALLABLE = `<link rel="manifest" href="/manifest.webmanifest">
<link rel="apple-touch-icon" href="/icons/apple-touch-180.png">
<meta name="apple-mobile-web-app-title" content="Yosoku">
<meta name="theme-color" media="(prefers-color-scheme: light)" content="#F5F0E4">
<meta name="theme-color" media="(prefers-color-scheme: dark)" content="#11173A">
`;
const installable = (page) =>
  page.replace(/<meta name="theme-color"[^>]*>\n?/, '').replace('</head>', () => `${INSTALLABLE}</head>`);

/** One file of plain JavaScript for the browser. */
const bundleForBrowser = (entry, outfile) =>
  build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    define: { 'process.env.NODE_ENV': '"production"' },
    logLevel: 'warning',
  });

/** The app's page once more, with a sign-in on it that can be typed into before the program is there. */
async function writeFirstPage(folder) {
  await bundleForBrowser(path.join(FIRST_PAGE, 'script.ts'), path.join(folder, FIRST.script));
  const form = await readFile(path.join(FIRST_PAGE, 'form.html'), 'utf8');
  const page = await readFile(path.join(folder, 'index.html'), 'utf8');
  // Before the style sheet: a script behind one waits for it.
  const [head, root] = ['<title>', '<div id="root">'];
  if (!page.includes(head) || !page.includes(root))
    throw new Error('The page of the web app has no place for the sign-in.');
  await writeFile(
    path.join(folder, FIRST.page),
    page.replace(head, () => `<script src="/${FIRST.script}"></script>${head}`).replace(root, () => `${form}${root}`),
  );
}

/** What makes the exported app start without a network (a service worker) and travel small (gzip, brotli beside each file). */
export async function afterExport(folder) {
  await splitFirstPage(folder);
  await writeFile(
    path.join(folder, 'index.html'),
    installable(await readFile(path.join(folder, 'index.html'), 'utf8')),
  );
  await writeFirstPage(folder);
  const worker = path.join(folder, 'sw.js');
  await bundleForBrowser(SERVICE_WORKER, worker);
  await injectManifest({
    swSrc: worker,
    swDest: worker,
    globDirectory: folder,
    globPatterns: ['**/*.{html,js,css,ttf,png,ico,svg,webmanifest}'],
    // A device that keeps the app has no first visit any more.
    globIgnores: ['sw.js', FIRST.page, FIRST.script],
    dontCacheBustURLsMatching: /(\/|-|\.)[0-9a-f]{32}\./,
    maximumFileSizeToCacheInBytes: 8e6,
  });
  for (const name of await readdir(folder, { recursive: true })) {
    if (!TEXT.test(name)) continue;
    const file = path.join(folder, name);
    const bytes = await readFile(file);
    if (bytes.length < SMALLEST_WORTH_IT) continue;
    await writeFile(`${file}.gz`, await gzip(bytes, { level: 9 }));
    await writeFile(`${file}.br`, await brotli(bytes, { params: { [zlib.constants.BROTLI_PARAM_QUALITY]: 9 } }));
  }
}
