import { Suspense, lazy } from 'react';

const Move = lazy(async () => ({ default: (await import('./all-hardware')).MoveStation }));
const Shelf = lazy(async () => ({ default: (await import('./all-hardware')).ShelfPage }));

/** The Move station. */
export const MoveStation = () => (
  <Suspense fallback={null}>
    <Move />
  </Suspense>
);

/** The shelf of the shop. */
export const ShelfPage = () => (
  <Suspense fallback={null}>
    <Shelf />
  </Suspense>
);
