import { useEffect } from 'react';

/** Can this browser keep the screen on? Only over https, and not in every browser. */
export const canStayAwake = (): boolean => typeof navigator !== 'undefined' && 'wakeLock' in navigator;

/** Keeps the screen on while it is shown; a browser lets go of it whenever the page is hidden. */
export function useAwake(on: boolean): void {
  useEffect(() => {
    if (!on || !canStayAwake()) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const hold = (): void => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (held) => {
          if (over) void held.release();
          else lock = held;
        },
        // An empty battery: the device decides.
        () => undefined,
      );
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, [on]);
}
