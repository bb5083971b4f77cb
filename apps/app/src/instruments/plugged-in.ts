import { useCallback, useSyncExternalStore } from 'react';
import type { Instrument } from './instrument';

/** Instruments that are listened to, by the build that they are used at: a station that comes after another goes on with the same. */
const open = new Map<string, Instrument>();
const watchers = new Set<() => void>();

const instrumentOf = (buildId: string): Instrument | null => open.get(buildId) ?? null;

export function plugIn(buildId: string, instrument: Instrument | null): void {
  open.get(buildId)?.close();
  if (instrument) open.set(buildId, instrument);
  else open.delete(buildId);
  for (const each of watchers) each();
}

/** Told when an instrument is plugged in or let go. */
function watchInstruments(each: () => void): () => void {
  watchers.add(each);
  return () => watchers.delete(each);
}

/** The instrument at a build, or null. */
export const useInstrument = (buildId: string): Instrument | null =>
  useSyncExternalStore(
    watchInstruments,
    useCallback(() => instrumentOf(buildId), [buildId]),
  );
