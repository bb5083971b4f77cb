import type { EntryOf } from '../record/entry';
import type { Build } from '../record/fold';
import type { TrialFinding } from './derive-trial';

/** Something that was left as it is, knowingly. */
export interface AcceptedFinding {
  readonly entry: string;
  /** The view whose figure it is; null for where the cams sit. */
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
    const view = body.of.what === 'figure' ? body.of.view : null;
    last.set(view, { entry: id, view, said: body.said, reason: body.reason, stands: stillSo(body, trial, limit) });
  }
  return [...last.values()];
}

function stillSo({ of }: Body, { decision, views }: TrialFinding, limit: number): boolean {
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

/** Is the place of the cams accepted as it is? */
export const placeAccepted = (accepted: readonly AcceptedFinding[]): boolean =>
  accepted.some(({ view, stands }) => view === null && stands);
