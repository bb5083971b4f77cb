import { useEffect, useState } from 'react';
import { hasArithmetic, provideArithmetic } from '@/store/arithmetic';

/** Is the arithmetic there? Fetches it if not. */
export function useArithmetic(): boolean {
  const [ready, setReady] = useState(hasArithmetic);
  useEffect(() => {
    if (ready) return;
    void import('@yosoku/core/logbook/report').then(({ derive }) => {
      provideArithmetic(derive);
      setReady(true);
    });
  }, [ready]);
  return ready;
}
