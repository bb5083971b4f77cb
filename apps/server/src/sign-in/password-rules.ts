import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';

const LEAST = 10;
const MOST = 200;
/** So many signs are looked at: longer ones are strong enough, and the look costs time. */
const LOOKED_AT = 64;
/** Of zxcvbn, 0 to 4: below this a password falls to a list of the commonest (Wheeler 2016). */
const LEAST_SCORE = 2;
/** A word of fewer letters stands in many good passwords by chance. */
const SHORTEST_WORD = 4;
/** So many signs must be left of it when the names' own words are taken out. */
const LEAST_BESIDE = 6;

const strength = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
const bare = (text: string): string =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/**
 * Why a password will not do, in words; null when it does.
 * @param names of the shop and the builder, which a guesser tries first.
 * @example passwordTrouble('Fennel Yard 1', ['Fennel Yard']) // 'It is little more than the name “Fennel Yard”.'
 */
export function passwordTrouble(password: string, names: readonly string[]): string | null {
  const signs = [...password];
  if (signs.length < LEAST) return `At least ${LEAST} characters; these are ${signs.length}. A short sentence is good.`;
  if (password.length > MOST) return `At most ${MOST} characters.`;
  if (password.trim() === '') return 'Blanks alone are no password.';
  if (new Set(signs).size <= 2) return 'It is the same sign again and again.';
  const plain = bare(password);
  for (const name of names) {
    const words = name
      .split(/\s+/)
      .map(bare)
      .filter((word) => word.length >= SHORTEST_WORD);
    const left = words.reduce((rest, word) => rest.replaceAll(word, ''), plain);
    if (left !== plain && left.length < LEAST_BESIDE) return `It is little more than the name “${name}”.`;
  }
  const { score, sequence } = strength.check(password.slice(0, LOOKED_AT), [...names]);
  if (score >= LEAST_SCORE) return null;
  const [most] = [...sequence].sort((a, b) => b.token.length - a.token.length);
  switch (most?.pattern) {
    case 'dictionary':
      return 'It is among the commonest passwords, which are tried first. Several words together are better.';
    case 'repeat':
      return 'It repeats itself: what is repeated is guessed at once.';
    case 'sequence':
    case 'spatial':
      return 'It is a row of signs as they stand on the keys or in the alphabet. Several words together are better.';
    default:
      return 'It is too easily guessed. Several words together are better.';
  }
}
