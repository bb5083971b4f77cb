import { type Stand, type WholeEngine, turned } from '@yosoku/core/simulation/whole-engine';

/** A practice engine under the hand. Whoever shows it is told of every frame; nothing is drawn anew for it. */
export interface LiveEngine {
  readonly engine: WholeEngine;
  readonly stand: () => Stand;
  /** How it stood when it last came to rest. */
  readonly rested: () => Stand;
  /** Turns it at once: a finger leads. Crank degrees, positive the way it runs. */
  readonly turn: (by: number) => void;
  /** Turns it smoothly: frame by frame, so that a needle can be seen to wind. */
  readonly roll: (by: number) => void;
  /** Something else is done to it. */
  readonly change: (how: (stand: Stand) => Stand) => void;
  readonly follow: (each: (stand: Stand) => void) => () => void;
  /** Told when it has come to rest: nothing of a turn is left, and nothing was done to it for a moment. */
  readonly onRest: (rested: (stand: Stand) => void) => () => void;
  /** From the moment that a turn is asked for until it has come to rest, however slowly the page draws. */
  readonly moving: () => boolean;
  /** Told when it begins to move and when it has come to rest. */
  readonly onMoving: (each: (moving: boolean) => void) => () => void;
}

/** A part of what is left is turned in a frame, and at least so much, crank degrees. */
const PART = 0.14;
const LEAST = 0.25;
const MOST = 8;
const REST_MS = 160;

/** @param still at once, without rolling: for whoever wants less motion. */
export function makeLiveEngine(engine: WholeEngine, from: Stand, still: () => boolean): LiveEngine {
  let stand = from;
  let rested = from;
  let left = 0;
  let frame: number | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const followers = new Set<(stand: Stand) => void>();
  const resters = new Set<(stand: Stand) => void>();
  const watchers = new Set<(moving: boolean) => void>();
  let moving = false;
  const move = (now: boolean): void => {
    if (now === moving) return;
    moving = now;
    for (const each of watchers) each(now);
  };
  const rest = (): void => {
    timer = undefined;
    rested = stand;
    for (const each of resters) each(stand);
    move(false);
  };
  /** Rests in a moment, unless something of a turn is still to come: frames may lie further apart than that moment. */
  const settle = (): void => {
    clearTimeout(timer);
    timer = undefined;
    if (frame !== null) return;
    if (moving) timer = setTimeout(rest, REST_MS);
  };
  const put = (next: Stand): void => {
    if (next === stand) return;
    move(true);
    stand = next;
    for (const each of followers) each(stand);
  };
  const step = (): void => {
    frame = null;
    const by = Math.sign(left) * Math.min(Math.abs(left), Math.max(LEAST, Math.min(MOST, Math.abs(left) * PART)));
    const before = stand;
    put(turned(engine, stand, by));
    // Against the stop: what is left of the turn is spent.
    left = stand === before ? 0 : left - by;
    if (Math.abs(left) > 1e-9) frame = requestAnimationFrame(step);
    settle();
  };
  /** Done at once. */
  const putNow = (next: Stand): void => {
    put(next);
    settle();
  };
  return {
    engine,
    stand: () => stand,
    rested: () => rested,
    turn: (by) => {
      left = 0;
      putNow(turned(engine, stand, by));
    },
    roll: (by) => {
      if (still()) {
        putNow(turned(engine, stand, by));
        return;
      }
      // A turn the other way ends the one before.
      left = Math.sign(by) === Math.sign(left) ? left + by : by;
      move(true);
      frame ??= requestAnimationFrame(step);
      settle();
    },
    change: (how) => putNow(how(stand)),
    follow: (each) => {
      followers.add(each);
      return () => followers.delete(each);
    },
    onRest: (rested) => {
      resters.add(rested);
      return () => resters.delete(rested);
    },
    moving: () => moving,
    onMoving: (each) => {
      watchers.add(each);
      return () => watchers.delete(each);
    },
  };
}
