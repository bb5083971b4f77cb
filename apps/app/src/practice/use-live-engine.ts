import { type RefObject, useEffect, useRef, useSyncExternalStore } from 'react';
import { AccessibilityInfo, type View } from 'react-native';
import type { Stand } from '@yosoku/core/simulation/whole-engine';
import { type PracticeRun, stood } from '@/store/practice-slice';
import { useAppDispatch } from '@/store/store';
import { type LiveEngine, makeLiveEngine } from './live-engine';
import { standsHere } from '@/logbook/standing-now';

const engines = new Map<string, LiveEngine>();
let still = false;

/** The one engine of a practice, whoever shows it: a station that comes after another goes on turning the same. */
export function liveEngineOf({ id, scenario, stand }: Pick<PracticeRun, 'id' | 'scenario' | 'stand'>): LiveEngine {
  const known = engines.get(id);
  if (known) return known;
  const live = makeLiveEngine(scenario.engine, stand, () => still);
  engines.set(id, live);
  standsHere(id, live.stand);
  return live;
}

/** The engine of a practice while it is on the screen; where it comes to rest is kept on the device. */
export function useLiveEngine(run: PracticeRun): LiveEngine {
  const dispatch = useAppDispatch();
  const { id } = run;
  const live = liveEngineOf(run);
  useEffect(() => {
    void AccessibilityInfo.isReduceMotionEnabled().then((reduced) => (still = reduced));
    const keep = (stand: Stand): void => void dispatch(stood({ id, stand }));
    const leave = live.onRest(keep);
    return () => {
      leave();
      keep(live.stand());
    };
  }, [dispatch, id, live]);
  return live;
}

/** How it stood when it last came to rest: for words. */
export const useRested = (live: LiveEngine): Stand => useSyncExternalStore(live.onRest, live.rested);

/** Says on an element that it is busy while the engine moves, for screen readers; without drawing anything anew. */
export function useBusySign(live: LiveEngine): RefObject<View | null> {
  const host = useRef<View>(null);
  useEffect(() => {
    const say = (moving: boolean): void =>
      (host.current as unknown as HTMLElement | null)?.setAttribute?.('aria-busy', String(moving));
    say(live.moving());
    return live.onMoving(say);
  }, [live]);
  return host;
}
