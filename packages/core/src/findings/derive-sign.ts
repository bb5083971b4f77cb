import { VALVES, type Valve } from '../cam/card';
import { SIGN_CHECK_NAMES, type SignCheckName, signCheckOf } from '../sign/sign-checks';
import { type AcceptedFinding, lobesKey, placeAccepted } from './accepted';
import { ZERO_METHODS } from '../tdc/zero-methods';
import type { ClearanceFinding } from './derive-clearance';
import type { LashFinding, ValveState } from './derive-lash';
import { lobesThatDiffer } from './derive-lobes';
import type { ProofFinding } from './derive-proof';
import type { TrialFinding } from './derive-trial';
import type { Build } from '../record/fold';

/** What a builder should know before signing. */
export type OpenPoint =
  | {
      readonly code:
        | 'tdc-unproved'
        | 'no-verdict'
        | 'not-on-target'
        | 'move-unproved'
        | 'closing-check-due'
        | 'one-pair'
        | 'card-contradicts'
        | 'clearance-unknown'
        | 'valve-lash'
        | 'solid-lifter'
        | 'checking-springs';
    }
  | {
      /** Pumped up, a hydraulic lifter would hold this valve against its piston. */
      readonly code: 'pumped-up';
      readonly valve: Valve;
    }
  | { readonly code: 'lash-off' | 'lash-due' | 'lash-unchecked'; readonly count: number }
  | { readonly code: 'tight'; readonly valve: Valve }
  /** A lobe is another than those of the other cylinders. */
  | { readonly code: 'lobe-differs'; readonly valve: Valve; readonly at: 'lobe' | 'valve' }
  /** A duration or a lift that is not the card’s, of a view. */
  | { readonly code: 'differs'; readonly view: string };

/** The signing of a build: what is checked, what stands open, who signed. */
export interface SignFinding {
  readonly checks: readonly {
    readonly check: SignCheckName;
    readonly title: string;
    readonly why: string;
    readonly state: 'due' | 'done' | 'skipped';
    readonly reason: string | null;
    readonly entry: string | null;
  }[];
  readonly open: readonly OpenPoint[];
  /** Every check is answered. */
  readonly ready: boolean;
  readonly signed: {
    readonly entry: string;
    readonly name: string;
    readonly at: string;
    /** By the server's clock; null until the server has it. */
    readonly received: string | null;
    readonly note: string | null;
  } | null;
  readonly reopened: { readonly entry: string; readonly at: string; readonly reason: string } | null;
  /** Closed to new entries. */
  readonly closed: boolean;
  /** Lifts that a later check is compared with, mm. */
  readonly baselines: readonly {
    readonly valve: Valve;
    readonly at: 'lobe' | 'valve';
    readonly lift: number;
    /** How many cylinders it stands for, and how far their lifts lie apart, mm. */
    readonly lobes: number;
    readonly spread: number;
  }[];
}

export function deriveSign(
  build: Build,
  trials: readonly TrialFinding[],
  zeroProved: boolean,
  proof: ProofFinding,
  clearance: readonly ClearanceFinding[],
  lash: LashFinding,
  accepted: readonly AcceptedFinding[],
): SignFinding {
  const enough = clearance.every(({ state }) => state === 'enough');
  const checks = SIGN_CHECK_NAMES.map((check): SignFinding['checks'][number] => {
    const answer = build.signChecks.get(check);
    // What was measured is a better answer than a tick.
    const measured =
      (check === 'clearance' && enough) ||
      (check === 'lash' && lash.job?.state === 'done' && !onCheckingSprings(build));
    return {
      check,
      ...signCheckOf(check, build.asItStands?.body.camDrives ?? null),
      state: measured ? 'done' : (answer?.body.result ?? 'due'),
      reason: answer?.body.reason ?? null,
      entry: answer?.id ?? null,
    };
  });
  const { signature, reopened } = build;
  const baselines = VALVES.flatMap((valve) =>
    (['lobe', 'valve'] as const).flatMap((at) => {
      const all = trials.flatMap(({ lobes }) => lobes.filter((each) => each.valve === valve && each.at === at)).at(-1);
      const lifts = (all?.rows ?? []).flatMap(({ lift }) => lift?.value ?? []);
      if (all?.usual != null && lifts.length > 1)
        return [{ valve, at, lift: all.usual, lobes: lifts.length, spread: Math.max(...lifts) - Math.min(...lifts) }];
      const view = trials.flatMap((trial) => trial.views.filter(({ key }) => key === `${at}-lift ${valve}`)).at(-1);
      return view ? [{ valve, at, lift: view.value, lobes: 1, spread: 0 }] : [];
    }),
  );
  return {
    checks,
    open: openPoints(trials, zeroProved, proof, clearance, accepted).concat(
      valvesOff(lash),
      lashPoint(build, lash),
      solidLifter(build),
      onCheckingSprings(build) && build.signChecks.get('lash')?.body.result !== 'done'
        ? [{ code: 'checking-springs' as const }]
        : [],
    ),
    ready: checks.every(({ state }) => state !== 'due'),
    signed: signature && {
      entry: signature.id,
      name: signature.body.name,
      at: signature.takenAt,
      received: signature.receivedAt ?? null,
      note: signature.body.note ?? null,
    },
    reopened: reopened && { entry: reopened.id, at: reopened.takenAt, reason: reopened.body.reason },
    closed: signature !== null && reopened === null,
    baselines,
  };
}

/** The valve that TDC was found with was let down or pushed down: until its lash is set again. */
const lashPoint = ({ zeros, signChecks }: Build, { job }: LashFinding): OpenPoint[] =>
  zeros.some(({ begun }) => ZERO_METHODS[begun.method].disturbsLash) &&
  signChecks.get('lash')?.body.result !== 'done' &&
  job?.state !== 'done'
    ? [{ code: 'valve-lash' }]
    : [];

/** Valves that were begun to be set: those that are left, wait for the second round, or came out another than they were left. */
function valvesOff({ job }: LashFinding): OpenPoint[] {
  if (!job) return [];
  const count = (...states: readonly ValveState[]): number =>
    job.valves.filter(({ state }) => states.includes(state)).length;
  const [off, due, unchecked] = [count('loose', 'tight'), count('due'), count('set')];
  if (off > 0) return [{ code: 'lash-off', count: off }];
  if (due > 0) return [{ code: 'lash-due', count: due }];
  return unchecked > 0 ? [{ code: 'lash-unchecked', count: unchecked }] : [];
}

/** Light springs were on the valves to measure by: they are no springs to run with. */
const onCheckingSprings = ({ asItStands }: Build): boolean => asItStands?.body.springs === 'checking';

/** Was the pushrod's length taken with a lifter that is none to run with? */
const measuredSolid = (pushrods: Build['pushrods']): boolean =>
  [...pushrods.values()].some((all) => {
    const lifter = all.at(-1)?.body.lifter;
    return lifter === 'made-solid' || lifter === 'carried-over';
  });

/** A hydraulic lifter was made solid to be measured on, and nobody has said that it is out again. */
const solidLifter = ({ asItStands, checks, signChecks, pushrods }: Build): OpenPoint[] =>
  asItStands?.body.lifter === 'hydraulic' &&
  (checks.get('lifter-solid')?.body.result === 'done' || measuredSolid(pushrods)) &&
  signChecks.get('tools-out')?.body.result !== 'done'
    ? [{ code: 'solid-lifter' }]
    : [];

function openPoints(
  trials: readonly TrialFinding[],
  zeroProved: boolean,
  proof: ProofFinding,
  clearance: readonly ClearanceFinding[],
  accepted: readonly AcceptedFinding[],
): OpenPoint[] {
  const trial = trials.at(-1);
  const verdict = trial?.decision.verdict;
  const open: OpenPoint[] = [];
  if (!zeroProved) open.push({ code: 'tdc-unproved' });
  if (verdict?.kind !== 'leave' && !placeAccepted(accepted))
    open.push({ code: verdict ? 'not-on-target' : 'no-verdict' });
  for (const view of trial?.views ?? [])
    if (view.differs && !accepted.some((each) => each.view === view.key && each.stands))
      open.push({ code: 'differs', view: view.key });
  for (const table of trial?.lobes ?? [])
    if (
      (table.uneven !== null || lobesThatDiffer(table).length > 0) &&
      !accepted.some((each) => each.view === lobesKey(table) && each.stands)
    )
      open.push({ code: 'lobe-differs', valve: table.valve, at: table.at });
  if (proof.state === 'due') open.push({ code: 'move-unproved' });
  // A cam that is signed on readings which nobody looked at again.
  const first = verdict?.kind === 'leave' ? verdict.judged.first : [];
  if (first.includes('closing-check')) open.push({ code: 'closing-check-due' });
  if (first.includes('read-pair')) open.push({ code: 'one-pair' });
  if (first.includes('read-both-ways')) open.push({ code: 'card-contradicts' });
  for (const { state, valve } of clearance) if (state === 'tight') open.push({ code: 'tight', valve });
  for (const { pumped, valve } of clearance)
    if (pumped?.leaves != null && pumped.leaves <= 0) open.push({ code: 'pumped-up', valve });
  if (clearance.some(({ state }) => state === 'unknown')) open.push({ code: 'clearance-unknown' });
  return open;
}
