import type { BodyOf, Entry } from './entry';
import { fold } from './fold';

/** How a build of the same kind came in, before anything was moved. */
export type Kin = NonNullable<BodyOf<'build.described'>['like']>[number];

/** What a new build can take over from an earlier one beside its engine and wheel: facts alone, no reading, no check. */
export interface TakenOver {
  readonly card: Omit<BodyOf<'card.entered'>, 'replaces'> | null;
  readonly target: Omit<BodyOf<'target.set'>, 'replaces'> | null;
  /** The drive as it was first fitted there: a new one is started at its marks as that was. */
  readonly drive: Omit<BodyOf<'drive.fitted'>, 'replaces' | 'trial'> | null;
  /** How builds of its kind came in, the one that was taken from first. */
  readonly kin: readonly Kin[];
}

/** So many of a kind are told beside the card. */
const MOST_KIN = 3;

/**
 * What a new build takes over from another.
 * @param came how that one came in: the verdict on its first trial; null where there was none.
 * @returns null where its logbook does not say what engine it is.
 */
export function takenOver(entries: readonly Entry[], came: Pick<Kin, 'delta' | 'expanded'> | null): TakenOver | null {
  const build = fold(entries);
  if (!build) return null;
  const { name, like = [] } = build.description.body;
  const bodyOf = <B extends { readonly replaces: string | null }>(entry: { readonly body: B } | null) => {
    if (!entry) return null;
    const { replaces: _replaces, ...body } = entry.body;
    return body;
  };
  const first = build.trials.find(({ drive }) => drive)?.drive?.body;
  const own: Kin[] = came ? [{ build: build.description.buildId, name, ...came }] : [];
  return {
    card: bodyOf(build.card),
    target: bodyOf(build.target),
    drive: first ? { camTurns: first.camTurns, parts: first.parts } : null,
    kin: [...own, ...like].slice(0, MOST_KIN),
  };
}
