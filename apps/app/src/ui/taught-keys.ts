import type { Taught } from '@/store/settings-slice';

/** The single key that does the same at the bench. */
const BENCH_KEYS: Readonly<Record<Taught, string>> = {
  record: 'Enter',
  take: 'i',
  sync: 't',
  zero: 'o',
  undo: 'u',
  next: 'n',
  other: 'w',
  repeat: 'v',
  more: ']',
  less: '[',
};

/** What comes so soon after a taught key comes from the same press of the pedal, ms. */
export const SAME_PRESS_MS = 150;

let byCode = new Map<string, string>();
let last = -Infinity;
const known = new WeakMap<KeyboardEvent, Pressed | null>();

/** A key as shortcuts go by it. */
export interface Pressed {
  readonly key: string;
  /** Of a pedal: it acts wherever the focus is. */
  readonly taught: boolean;
}

/** Puts the keys that this device was taught into force. */
export function teach(keys: Readonly<Partial<Record<Taught, string>>>): void {
  byCode = new Map(
    Object.entries(keys).flatMap(([does, code]) => (code === undefined ? [] : [[code, BENCH_KEYS[does as Taught]]])),
  );
}

/**
 * What a key means here; null where it is the rest of a press that has acted already: held down, or the second key of a pedal that sends two.
 * Asked once for each event, by however many.
 */
export function pressedBy(event: KeyboardEvent): Pressed | null {
  const found = known.get(event);
  if (found !== undefined) return found;
  const mapped = byCode.get(event.code);
  const isRest = event.timeStamp - last < SAME_PRESS_MS || (mapped !== undefined && event.repeat);
  if (mapped !== undefined && !isRest) last = event.timeStamp;
  const pressed = isRest ? null : mapped === undefined ? plain(event) : { key: mapped, taught: true };
  known.set(event, pressed);
  return pressed;
}

const plain = ({ key }: KeyboardEvent): Pressed => ({ key: key.length === 1 ? key.toLowerCase() : key, taught: false });
