/** Half of a surrogate pair: what is left of a character, an emoji for instance, that was cut in the middle. */
const HALF_A_CHARACTER = /[\uD800-\uDFFF]/u;

/**
 * Is a text made of whole characters? One with half a surrogate pair cannot be written as UTF-8: databases and other programs refuse it.
 * Source: the Unicode Standard, chapter 3.9 (D84, ill-formed).
 *
 * @example isWellFormed('Lap 👍'.slice(0, 5)) // false: the thumb was cut in two
 */
export const isWellFormed = (text: string): boolean => !HALF_A_CHARACTER.test(text);

const characters = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

/**
 * The beginning of a text in whole characters, as a reader counts them.
 *
 * @param most how long the result may be, in UTF-16 units, which is what schemas and browsers count.
 * @example cutText('Lap 👍', 5) // "Lap ": the thumb takes two units and has no room
 */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  for (const { segment, index } of characters.segment(text)) {
    if (index + segment.length > most) break;
    end = index + segment.length;
  }
  return text.slice(0, end);
}
