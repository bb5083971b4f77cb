import { Suspense, lazy } from 'react';
import type { StationProps } from '@/shell/station-screen';

const Move = lazy(async () => ({ default: (await import('./all-hardware')).MoveStation }));
const Shelf = lazy(async () => ({ default: (await import('./all-hardware')).ShelfPage }));

/** The Move station. */
export const MoveStation = (props: StationProps) => (
  <Suspense fallback={null}>
    <Move {...props} />
  </Suspense>
);

/** The shelf of the shop. */
export const ShelfPage = () => (
  <Suspense fallback={null}>
    <Shelf />
  </Suspense>
);
