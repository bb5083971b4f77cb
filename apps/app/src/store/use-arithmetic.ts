import { useEffect, useState } from 'react';
import { hasArithmetic, provideArithmetic } from '@/store/arithmetic';

/** Is the arithmetic there? Fetches it if not, once it is wanted. */
export function useArithmetic(wanted: boolean): boolean {
  const [ready, setReady] = useState(hasArithmetic);
  useEffect(() => {
    if (ready || !wanted) return;
    void Promise.all([import('@yosoku/core/report/report'), import('@yosoku/core/record/check-entry')]).then(
      ([{ derive }, { checkEntry, isUndoable }]) => {
        provideArithmetic({ derive, checkEntry, isUndoable });
        setReady(true);
      },
    );
  }, [ready, wanted]);
  return ready;
}
