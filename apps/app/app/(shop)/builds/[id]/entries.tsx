import { Redirect } from 'expo-router';
import { Suspense, lazy } from 'react';

/** There on the developer's server alone: what is delivered does not hold it. */
const Page = __DEV__
  ? lazy(async () => ({ default: (await import('@/features/developer/entries-page')).EntriesPage }))
  : null;

export default function EntriesRoute() {
  if (!Page) return <Redirect href="/" />;
  return (
    <Suspense fallback={null}>
      <Page />
    </Suspense>
  );
}
