import { readFile, readdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import zlib from 'node:zlib';
import { generateSW } from 'workbox-build';

const gzip = promisify(zlib.gzip);
const brotli = promisify(zlib.brotliCompress);
const TEXT = /\.(html|js|css|json|svg|ttf|webmanifest)$/;
const SMALLEST_WORTH_IT = 1024;

/** What makes the exported app start without a network (a service worker) and travel small (gzip, brotli beside each file). */
export async function afterExport(folder) {
  await generateSW({
    globDirectory: folder,
    globPatterns: ['**/*.{html,js,css,ttf,png,ico,svg,webmanifest}'],
    swDest: path.join(folder, 'sw.js'),
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    dontCacheBustURLsMatching: /(\/|-|\.)[0-9a-f]{32}\./,
    maximumFileSizeToCacheInBytes: 8e6,
    clientsClaim: true,
    skipWaiting: true,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    mode: 'production',
    cleanupOutdatedCaches: true,
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
