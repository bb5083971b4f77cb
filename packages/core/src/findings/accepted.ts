import type { EntryOf } from '../record/entry';
import type { Build } from '../record/fold';
import { type LobeTable, lobesThatDiffer } from './derive-lobes';
import type { TrialFinding } from './derive-trial';

/** Something that was left as it is, knowingly. */
export interface AcceptedFinding {
  readonly entry: string;
  /** The view whose figure it is, or the key of a table of lobes; null for where the cams sit. */
  readonly view: string | null;
  /** What the builder had before him. */
  readonly said: string;
  readonly reason: string;
  /** Is it still what was accepted? Readings taken since may have shown another place. */
  readonly stands: boolean;
}

type Body = EntryOf<'verdict.accepted'>['body'];

/**
 * What was accepted of the trial that is being read, the last word on each.
 * It stands while the figures are still those that were accepted, within the limit or what they are known to, and the verdict has not become another:
 * who accepts 2.5° late has not accepted that the wheel had slipped.
 */
export function deriveAccepted(build: Build, trial: TrialFinding | undefined, limit: number): AcceptedFinding[] {
  if (!trial || build.trial?.id !== trial.id) return [];
  const last = new Map<string | null, AcceptedFinding>();
  for (const { id, body } of build.trial.accepted) {
    const view = keyOfAccepted(body.of);
    last.set(view, { entry: id, view, said: body.said, reason: body.reason, stands: stillSo(body, trial, limit) });
  }
  return [...last.values()];
}

/** Whose acceptance it is, among all of a trial; null for where the cams sit. */
export function keyOfAccepted(of: Body['of']): string | null {
  if (of.what === 'lobes') return lobesKey(of);
  return of.what === 'figure' ? of.view : null;
}

/** The key of a table of lobes, beside the keys of views. `lobesKey({ valve: 'intake', at: 'lobe' })` is "every-lobe intake lobe". */
export const lobesKey = ({ valve, at }: Pick<LobeTable, 'valve' | 'at'>): string => `every-lobe ${valve} ${at}`;

function stillSo({ of }: Body, { decision, views, lobes }: TrialFinding, limit: number): boolean {
  if (of.what === 'lobes') return lobesStillSo(of, lobes);
  if (of.what === 'figure') {
    const now = views.find(({ key }) => key === of.view);
    return now !== undefined && Math.abs(now.value - of.value) <= Math.max(now.expanded ?? 0, 1e-6);
  }
  return (
    decision.verdict?.kind === of.verdict &&
    decision.cams.length > 0 &&
    decision.cams.every(({ cam, bank, verdict }) => {
      const then = of.cams.find((each) => each.cam === cam && each.bank === bank);
      return then !== undefined && Math.abs(verdict.delta - then.delta) <= Math.max(limit, verdict.expanded);
    })
  );
}

/** No other lobe differs than those that were accepted, and each by what it was known to then. */
function lobesStillSo(of: Extract<Body['of'], { what: 'lobes' }>, tables: readonly LobeTable[]): boolean {
  const table = tables.find((each) => lobesKey(each) === lobesKey(of));
  if (!table) return false;
  const known = Math.max(0, ...table.rows.map(({ lift }) => lift?.expanded ?? 0));
  if (table.uneven !== null && (of.uneven === null || table.uneven > of.uneven + known)) return false;
  return lobesThatDiffer(table).every(({ cylinder, figure, apart, expanded }) => {
    const then = of.differ.find((each) => each.cylinder === cylinder && each.figure === figure);
    return then !== undefined && Math.abs(apart - then.apart) <= expanded;
  });
}

/** Is the place of the cams accepted as it is? */
export const placeAccepted = (accepted: readonly AcceptedFinding[]): boolean =>
  accepted.some(({ view, stands }) => view === null && stands);
