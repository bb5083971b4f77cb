import { VALVES, type Valve } from '../cam/card';
import { SIGN_CHECKS, SIGN_CHECK_NAMES, type SignCheckName } from '../sign/sign-checks';
import { formatComputedLength } from '../units/length';
import type { ClearanceFinding } from './derive-clearance';
import type { ProofFinding } from './derive-proof';
import type { TrialFinding } from './derive-trial';
import type { Build } from '../record/fold';

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
  /** What a builder should know before signing. */
  readonly open: readonly string[];
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
    readonly words: string;
  }[];
}

export function deriveSign(
  build: Build,
  trials: readonly TrialFinding[],
  zeroProved: boolean,
  proof: ProofFinding,
  clearance: readonly ClearanceFinding[],
): SignFinding {
  const { units } = build.description.body;
  const enough = clearance.every(({ state }) => state === 'enough');
  const checks = SIGN_CHECK_NAMES.map((check): SignFinding['checks'][number] => {
    const answer = build.signChecks.get(check);
    // A measured clearance is a better answer than a tick.
    const measured = check === 'clearance' && enough;
    return {
      check,
      ...SIGN_CHECKS[check],
      state: measured ? 'done' : (answer?.body.result ?? 'due'),
      reason: answer?.body.reason ?? null,
      entry: answer?.id ?? null,
    };
  });
  const verdict = trials.at(-1)?.decision.verdict;
  const open = [
    zeroProved ? null : 'TDC is not proved now.',
    verdict?.kind === 'leave' ? null : (verdict?.headline ?? 'The cam has no verdict.'),
    proof.state === 'due' ? 'The move has not been proved.' : null,
    ...clearance.map(({ state, valve, words }) =>
      state === 'tight' ? `${valve === 'intake' ? 'Intake' : 'Exhaust'} valve to piston: ${words}` : null,
    ),
    clearance.some(({ state }) => state === 'unknown')
      ? 'Valve-to-piston clearance was not measured for both valves.'
      : null,
  ].filter((each) => each !== null);
  const { signature, reopened } = build;
  const baselines = VALVES.flatMap((valve) =>
    (['lobe', 'valve'] as const).flatMap((at) => {
      const view = trials.flatMap((trial) => trial.views.filter(({ key }) => key === `${at}-lift ${valve}`)).at(-1);
      return view
        ? [{ valve, at, lift: view.value, words: `${valve} ${at} lift ${formatComputedLength(view.value, units)}` }]
        : [];
    }),
  );
  return {
    checks,
    open,
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
