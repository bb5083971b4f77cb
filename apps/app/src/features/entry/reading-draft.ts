import { type WheelReading, type WheelRing, type WheelSide, wheelReadingSchema } from '@yosoku/core/crank/wheel';

/** A reading while it is being typed: the figures as text, and the side where the ring needs one. */
export interface ReadingDraft {
  readonly text: string;
  readonly side: WheelSide | undefined;
}

export type DraftReading =
  | { readonly state: 'empty' }
  | { readonly state: 'sideless'; readonly shows: number }
  | { readonly state: 'wrong'; readonly message: string }
  | { readonly state: 'whole'; readonly reading: WheelReading };

const FIGURES = /^\d{1,3}(\.\d{0,2})?$|^\.\d{1,2}$/;

/** What a half-typed reading amounts to on a ring. `{ text: '361' }` on a 0–360 ring is wrong, with the reason. */
export function readDraft(ring: WheelRing, { text, side }: ReadingDraft): DraftReading {
  if (text === '' || text === '.') return { state: 'empty' };
  const minus = /^[-−]/.test(text);
  if (!FIGURES.test(text) && !minus)
    return { state: 'wrong', message: 'Type the degrees under the pointer, like 26.5.' };
  const shows = Number(text.replace('−', '-'));
  const sided = ring.ring === '0-360' ? { ...ring, shows } : { ring: ring.ring, shows, side };
  const parsed = wheelReadingSchema.safeParse(
    side === undefined && ring.ring !== '0-360'
      ? { ...sided, side: ring.ring === '0-180' ? 'after' : 'after-tdc' }
      : sided,
  );
  if (!parsed.success) {
    const issue = parsed.error.issues.find(({ path }) => path[0] === 'shows');
    return { state: 'wrong', message: issue?.message ?? 'Type the degrees under the pointer, like 26.5.' };
  }
  if (ring.ring !== '0-360' && side === undefined) return { state: 'sideless', shows };
  return { state: 'whole', reading: parsed.data };
}

/** A reading as a draft that can be typed on. */
export const toDraft = (reading: WheelReading): ReadingDraft => ({
  text: String(reading.shows),
  side: reading.ring === '0-360' ? undefined : reading.side,
});

export type PadKey = '0' | '1' | '2' | '3' | '4' | '5' | '6' | '7' | '8' | '9' | '.' | '¼' | '½' | '¾' | 'back';

const FRACTION: Readonly<Partial<Record<PadKey, string>>> = { '¼': '.25', '½': '.5', '¾': '.75' };
const MOST_FIGURES = 6;

/** One key of the pad. A fraction key sets the fraction of what stands there; pressed again it takes it off. */
export function pressKey(text: string, key: PadKey): string {
  if (key === 'back') return text.slice(0, -1);
  const fraction = FRACTION[key];
  if (fraction) {
    const whole = text.split('.')[0] ?? '';
    return text === whole + fraction ? whole : `${whole || '0'}${fraction}`;
  }
  if (key === '.' && text.includes('.')) return text;
  return text.length >= MOST_FIGURES ? text : text === '0' && key !== '.' ? key : text + key;
}
