import type { Entry } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';

/** What a Report says, by the station that says it. */
const SAYS: Readonly<Record<string, (report: Report) => string>> = {
  zero: ({ zero }) => zero.sentence,
  read: ({ read }) => read.closing.sentence,
  verdict: ({ verdict }) => `${verdict.headline} ${verdict.action}`,
  move: ({ move }) => move.sentence,
  prove: ({ proof }) => proof.sentence,
};

interface Followed {
  readonly entry: Entry;
  /** What is said now and was not said before the entry, by station. */
  readonly says: readonly { readonly station: string; readonly words: string }[];
}

/**
 * Each entry of a logbook with what it changed of what the Report says.
 * @param derive the arithmetic; it is asked once for each entry.
 */
export function whatFollows(
  entries: readonly Entry[],
  derive: (entries: readonly Entry[]) => Report | null,
): readonly Followed[] {
  let before: Readonly<Record<string, string>> = {};
  return entries.map((entry, at) => {
    const report = derive(entries.slice(0, at + 1));
    const now = Object.fromEntries(Object.entries(SAYS).map(([station, say]) => [station, report ? say(report) : '']));
    const says = Object.entries(now).flatMap(([station, words]) =>
      words !== '' && words !== before[station] ? [{ station, words }] : [],
    );
    before = now;
    return { entry, says };
  });
}
