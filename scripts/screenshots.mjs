import { ensurePackages, ensurePrograms, run } from './setup.mjs';

/** `npm run screenshots`: draws every main view anew into docs/screenshots, from the demo shop, at both sizes. */

ensurePrograms('mariadbd', 'chromium', 'chromedriver');
ensurePackages();
const { ensureBuilt } = await import('./build.mjs');
const { withDemo } = await import('./throwaway.mjs');
await ensureBuilt();
await withDemo((base) =>
  run(process.execPath, ['--import', 'tsx', 'e2e/screenshots.ts'], { env: { ...process.env, BASE: base } }),
);
