import { type Condition, type Heard, SILENT, conditionOf, hear, steadyOf } from '@yosoku/core/instruments/hear';
import { type TurnRecorder, recordTurn } from '@yosoku/core/instruments/record-turn';
import { type Sync, ringAt } from '@yosoku/core/instruments/sync';
import { openLine } from './line';

/** A sync, and the setting of the wheel for which it was made. */
export interface WheelSync extends Sync {
  readonly setting: string | null;
}

/** What was read, on which indicator, and what that showed, mm. */
interface TakenPlace {
  readonly place: string;
  readonly which: 0 | 1;
  readonly lift: number | null;
}

/** What a screen shows of an instrument. */
export interface Showing {
  readonly condition: Condition | 'no-server' | 'unplugged';
  readonly box: string | null;
  /** Of the encoder, degrees. */
  readonly angle: number | null;
  readonly lifts: readonly [number | null, number | null];
  readonly steady: ReturnType<typeof steadyOf>;
  readonly origin: number;
  readonly lostBecause: Heard['lostBecause'];
  readonly tally: Heard['tally'];
  /** How far it has come since it last turned round, by its own count: negative downwards. Degrees. */
  readonly run: number;
  readonly sync: WheelSync | null;
  /** What the indicators showed where they were zeroed, mm. */
  readonly zero: readonly [number, number];
  /** What was read last, where the crank still stands; null where it has moved since. */
  readonly taken: TakenPlace | null;
}

/** An instrument that is listened to on this page. */
export interface Instrument {
  readonly name: string;
  readonly showing: () => Showing;
  /** Told at most once a frame. */
  readonly follow: (each: () => void) => () => void;
  readonly syncTo: (sync: WheelSync) => void;
  /** An indicator is set to 0 where it shows so much, mm. */
  readonly zeroAt: (which: 0 | 1, shows: number) => void;
  /** Something was read where it stands. */
  readonly took: (place: string | null, which: 0 | 1) => void;
  /** Records a turn through a sync: the lift of one indicator above its zero. */
  readonly record: (which: 0 | 1) => TurnRecorder | null;
  readonly stopRecording: () => void;
  /** Says something to whoever is at the other end: only a practice box listens. */
  readonly say: (order: object) => void;
  readonly close: () => void;
}

/** How often silence is looked for. */
const LOOK_MS = 200;
/** Turned round only when it has gone so far the other way, degrees: less is noise. */
const TREMBLE = 0.3;
/** It has moved on from where it was read, degrees: more than it trembles. */
const MOVED = 0.5;

/** How far a crank has come since it last turned round. Angles of the encoder, degrees. */
function makeWay() {
  let run = 0;
  let turnedAt = 0;
  return {
    run: (): number => run,
    beginAt: (angle: number): void => {
      run = 0;
      turnedAt = angle;
    },
    to: (angle: number): void => {
      // The farthest of this run is where it may turn round.
      const on = run >= 0 ? 1 : -1;
      if ((angle - turnedAt) * on >= 0) {
        run += angle - turnedAt;
        turnedAt = angle;
      } else if (Math.abs(angle - turnedAt) > TREMBLE) {
        run = angle - turnedAt;
        turnedAt = angle;
      }
    },
  };
}

/**
 * Listens to an instrument over the server, and comes back by itself when the line breaks.
 * @param path of the server's line, under `/api`.
 */
export function openInstrument(
  name: string,
  path: string,
  onOpen: (say: Instrument['say']) => void = () => undefined,
): Instrument {
  let heard: Heard = SILENT;
  let here = true;
  let frame = 0;
  const way = makeWay();
  let recording: { readonly recorder: TurnRecorder; readonly sync: WheelSync; readonly which: 0 | 1 } | null = null;
  let sync: WheelSync | null = null;
  let zero: Showing['zero'] = [0, 0];
  let taken: (TakenPlace & { readonly angle: number }) | null = null;
  const followers = new Set<() => void>();
  const tell = (): void => {
    frame ||= requestAnimationFrame(() => {
      frame = 0;
      for (const each of followers) each();
    });
  };
  const moved = (from: number, to: number): void => {
    way.to(to);
    if (taken && Math.abs(to - taken.angle) > MOVED) taken = null;
    if (from !== to) tell();
  };
  const take = (line: string): void => {
    const before = heard;
    heard = hear(heard, line, performance.now());
    const { last } = heard;
    if (!last || last === before.last) return;
    if (heard.origin !== before.origin || !before.last) {
      way.beginAt(last.angle);
      taken = null;
    } else moved(before.last.angle, last.angle);
    if (!recording || recording.sync.origin !== heard.origin) return;
    const lift = last.lifts[recording.which];
    if (lift !== null) recording.recorder.add(ringAt(recording.sync, last.angle), lift - zero[recording.which]);
  };
  const line = openLine(path, {
    onOpen: () => onOpen(line.say),
    onWords: (words) => {
      if (words === '# here') here = true;
      else if (words === '# gone') here = false;
      else take(words);
    },
    onChange: tell,
  });
  // A silence is told too, though nothing comes that could tell it.
  const look = setInterval(tell, LOOK_MS);

  return {
    name,
    showing: () => ({
      condition: line.link() === 'broken' ? 'no-server' : !here ? 'unplugged' : conditionOf(heard, performance.now()),
      box: heard.box,
      angle: heard.last?.angle ?? null,
      lifts: heard.last?.lifts ?? [null, null],
      steady: steadyOf(heard),
      origin: heard.origin,
      lostBecause: heard.lostBecause,
      tally: heard.tally,
      run: way.run(),
      sync,
      zero,
      taken,
    }),
    follow: (each) => {
      followers.add(each);
      return () => followers.delete(each);
    },
    syncTo: (fresh) => {
      sync = fresh;
      tell();
    },
    zeroAt: (which, shows) => {
      zero = which === 0 ? [shows, zero[1]] : [zero[0], shows];
      tell();
    },
    took: (place, which) => {
      const { last } = heard;
      taken = place !== null && last ? { place, which, lift: last.lifts[which], angle: last.angle } : null;
    },
    record: (which) => {
      if (!sync) return null;
      recording = { recorder: recordTurn(), sync, which };
      return recording.recorder;
    },
    stopRecording: () => {
      recording = null;
    },
    say: line.say,
    close: () => {
      line.close();
      clearInterval(look);
      cancelAnimationFrame(frame);
      followers.clear();
    },
  };
}
