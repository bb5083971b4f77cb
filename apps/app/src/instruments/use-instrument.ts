import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { type Instrument, type Showing, instrumentOf, watchInstruments } from './instrument';

/** The instrument at a build, or null. */
export const useInstrument = (buildId: string): Instrument | null =>
  useSyncExternalStore(
    watchInstruments,
    useCallback(() => instrumentOf(buildId), [buildId]),
  );

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
