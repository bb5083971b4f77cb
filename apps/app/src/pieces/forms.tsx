import { Suspense, lazy } from 'react';

const NewBuildForm = lazy(async () => ({ default: (await import('./all-forms')).NewBuild }));
const EditEngineForm = lazy(async () => ({ default: (await import('./all-forms')).EditEngine }));
const CardForm = lazy(async () => ({ default: (await import('./all-forms')).CardStation }));

/** A new build: the first page does without its form. */
export const NewBuild = () => (
  <Suspense fallback={null}>
    <NewBuildForm />
  </Suspense>
);

/** The engine, to be corrected. */
export const EditEngine = () => (
  <Suspense fallback={null}>
    <EditEngineForm />
  </Suspense>
);

/** The Card station. */
export const CardStation = () => (
  <Suspense fallback={null}>
    <CardForm />
  </Suspense>
);
