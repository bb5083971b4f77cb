import { useSyncExternalStore } from 'react';

/** Less than this is no matter: nothing is worked out from clocks, they are for people, ms. */
const MATTERS_MS = 60 * 60_000;

let off = 0;
const heard = new Set<() => void>();

/** Compares this device's clock with that of the server, which stands in every answer. */
export function heedClock(answer: Response): Response {
  const theirs = Date.parse(answer.headers?.get('Date') ?? '');
  if (Number.isNaN(theirs)) return answer;
  const by = Date.now() - theirs;
  const now = Math.abs(by) < MATTERS_MS ? 0 : by;
  // Seconds come and go with the network.
  if (Math.abs(now - off) < MATTERS_MS && (now === 0) === (off === 0)) return answer;
  off = now;
  for (const each of heard) each();
  return answer;
}

/** By how much this device's clock is ahead of the server's, ms; 0 where that is no matter. */
export const useClockOff = (): number =>
  useSyncExternalStore(
    (each) => {
      heard.add(each);
      return () => heard.delete(each);
    },
    () => off,
    () => 0,
  );
