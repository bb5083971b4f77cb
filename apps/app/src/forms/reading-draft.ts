import { type WheelReading, type WheelRing, type WheelSide, wheelReadingSchema } from '@yosoku/core/crank/wheel';
import { MM_PER_INCH, inches } from '@yosoku/core/units/length';

/** A reading while it is being typed: the figures as text, and the side where the ring needs one. */
export interface ReadingDraft {
  readonly text: string;
  readonly side: WheelSide | undefined;
}

export type DraftReading =
  | { readonly state: 'empty' }
  | { readonly state: 'sideless' }
  | { readonly state: 'wrong'; readonly message: string }
  | { readonly state: 'whole'; readonly reading: WheelReading };

const FIGURES = /^\d{1,4}(\.\d{0,3})?$|^\.\d{1,3}$/;

/** What a half-typed reading amounts to on a ring. `{ text: '361' }` on a 0–360 ring is wrong, with the reason. */
export function readDraft(ring: WheelRing, { text, side }: ReadingDraft): DraftReading {
  if (text === '' || text === '.') return { state: 'empty' };
  const minus = /^[-−]/.test(text);
  if (!FIGURES.test(text) && !minus)
    return { state: 'wrong', message: 'Type the degrees under the pointer, like 26.5.' };
  const typed = Number(text.replace('−', '-'));
  const shows = ring.ring === 'rim' && ring.unit === 'in' && !minus ? inches(`0${text}`) : typed;
  const sided = ring.ring === '0-360' ? { ...ring, shows } : { ...ring, shows, side };
  const parsed = wheelReadingSchema.safeParse(
    side === undefined && ring.ring !== '0-360'
      ? { ...sided, side: ring.ring === '0-90' ? 'after-tdc' : 'after' }
      : sided,
  );
  if (!parsed.success) {
    const issue = parsed.error.issues.find(({ path }) => path[0] === 'shows');
    return { state: 'wrong', message: issue?.message ?? 'Type the degrees under the pointer, like 26.5.' };
  }
  // The mark itself has no side.
  const needsSide = ring.ring === '0-90' || (ring.ring !== '0-360' && typed !== 0);
  if (needsSide && side === undefined) return { state: 'sideless' };
  return { state: 'whole', reading: parsed.data };
}

/** A reading as a draft that can be typed on. */
export const toDraft = (reading: WheelReading): ReadingDraft => ({
  text: String(
    Math.round((reading.ring === 'rim' && reading.unit === 'in' ? reading.shows / MM_PER_INCH : reading.shows) * 1000) /
      1000,
  ),
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
