import { Suspense, lazy } from 'react';

const OfBuild = lazy(async () => ({ default: (await import('./all-print')).PrintPage }));
const Anywhere = lazy(async () => ({ default: (await import('./all-print')).PrintAnywhere }));

/** Print, of a build: the stations do without it. */
export const PrintPage = () => (
  <Suspense fallback={null}>
    <OfBuild />
  </Suspense>
);

/** Print, of no build. */
export const PrintAnywhere = () => (
  <Suspense fallback={null}>
    <Anywhere />
  </Suspense>
);
