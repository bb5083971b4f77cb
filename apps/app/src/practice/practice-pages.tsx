import { Suspense, lazy } from 'react';

const List = lazy(async () => ({ default: (await import('./all-practice')).PracticeList }));
const End = lazy(async () => ({ default: (await import('./all-practice')).PracticeEnd }));

/** The exercises, and what was scored. */
export const PracticeList = () => (
  <Suspense fallback={null}>
    <List />
  </Suspense>
);

/** The end of an exercise. */
export const PracticeEnd = () => (
  <Suspense fallback={null}>
    <End />
  </Suspense>
);
