import { capital } from './capital';
import { type LengthUnit, formatComputedLength } from '../units/length';
import type { OpenPoint, SignFinding } from '../findings/derive-sign';
import type { Report, ReportVerdict } from './report-schema';

/** What the open points quote. */
export interface SignContext {
  readonly units: LengthUnit;
  readonly verdict: ReportVerdict | null;
  readonly clearance: Report['clearance']['valves'];
  /** Of the trial that is being read. */
  readonly views: Report['trials'][number]['views'];
  readonly lobes: Report['trials'][number]['everyLobe'];
}

/** The signing as the Report has it. */
export const reportSign = (sign: SignFinding, context: SignContext): Report['sign'] => ({
  ...sign,
  checks: [...sign.checks],
  open: sign.open.map((point) => openWords(point, context)),
  baselines: sign.baselines.map((each) => ({
    ...each,
    words:
      each.lobes === 1
        ? `${each.valve} ${each.at} lift ${formatComputedLength(each.lift, context.units)}`
        : `${each.lobes} ${each.valve} ${each.at} lifts about ${formatComputedLength(each.lift, context.units)}, ${formatComputedLength(each.spread, context.units)} from least to greatest`,
  })),
});

const valves = (count: number): string => (count === 1 ? 'one valve' : `${count} valves`);

function openWords(point: OpenPoint, { verdict, clearance, views, lobes }: SignContext): string {
  switch (point.code) {
    case 'tdc-unproved':
      return 'TDC is not proved now.';
    case 'no-verdict':
      return 'The cam has no verdict.';
    case 'not-on-target':
      return verdict?.headline ?? '';
    case 'move-unproved':
      return 'The move has not been proved.';
    case 'closing-check-due':
      return 'The closing check was not made: nothing shows that the wheel has stayed where it was.';
    case 'one-pair':
      return 'What is known of the cam comes from a single pair of readings.';
    case 'card-contradicts':
      return 'The card contradicts itself, and no lobe was read both ways that would tell whether it is right.';
    case 'tight': {
      const words = clearance.find(({ valve }) => valve === point.valve)?.words ?? '';
      return `${point.valve === 'intake' ? 'Intake' : 'Exhaust'} valve to piston: ${words}`;
    }
    case 'pumped-up':
      return `${capital(point.valve)}: ${clearance.find(({ valve }) => valve === point.valve)?.pumped?.words ?? ''}`;
    case 'differs': {
      const view = views.find(({ key }) => key === point.view);
      return `${view?.title ?? ''}: ${view?.shows ?? ''}. ${view?.remark ?? ''}`;
    }
    case 'lobe-differs':
      return lobes.find(({ valve, at }) => valve === point.valve && at === point.at)?.words.join(' ') ?? '';
    case 'solid-lifter':
      return 'A lifter was made solid to be measured on: it must come out again, or be made to work again.';
    case 'lash-off':
      return `${valves(point.count)} found with another lash than wanted or left: see Lash.`;
    case 'lash-due':
      return `The lash of ${valves(point.count)} is not set.`;
    case 'lash-unchecked':
      return `The second round of the lash is open: ${valves(point.count)} to be looked at again.`;
    case 'checking-springs':
      return 'Checking springs were on the valves: the running springs must go on, and the lash be set with them.';
    case 'valve-lash':
      return 'The valve that TDC was found with has lost its lash: set it again.';
    case 'clearance-unknown':
      return 'Valve-to-piston clearance was not measured for both valves.';
  }
}
