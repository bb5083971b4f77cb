import { useEffect, useState } from 'react';
import type { Instrument, Showing } from './instrument';

/** Shown anew so often while it changes, ms: faster nobody reads. */
const EVERY_MS = 80;

/** What an instrument shows, renewed as it changes. */
export function useShowing(instrument: Instrument): Showing {
  const [showing, setShowing] = useState(instrument.showing);
  useEffect(() => {
    let last = 0;
    return instrument.follow(() => {
      const now = performance.now();
      if (now - last < EVERY_MS) return;
      last = now;
      setShowing(instrument.showing());
    });
  }, [instrument]);
  return showing;
}
