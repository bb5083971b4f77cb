/**
 * Which of the pieces on a device nobody needs any more.
 * @param there what is kept; @param before the pieces of the version that was running; @param now those of the one that takes over.
 * @example strandedBetween(['a', 'b', 'c'], ['b'], ['c']) // ['a']
 */
export function strandedBetween(
  there: readonly string[],
  before: readonly string[],
  now: readonly string[],
): readonly string[] {
  // Before the first list was written nobody knows which pieces a page may still fetch: all of them stay once.
  if (before.length === 0) return [];
  const needed = new Set([...before, ...now]);
  return there.filter((url) => !needed.has(url));
}
