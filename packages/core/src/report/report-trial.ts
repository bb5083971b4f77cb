import { READ_METHODS } from '../measure/read-methods';
import { USUAL_HEIGHT } from '../cam/usual-height';
import type { CompletedCard } from '../cam/complete-card';
import { type CylinderKnown, whatIf } from '../cam/what-if';
import { remember } from '../record/remember';
import { wrap180 } from '../units/angle';
import type { TrialFinding } from '../findings/derive-trial';
import type { CamFinding } from '../findings/derive-verdict';
import { measuredLobe } from '../findings/measured-lobe';
import type { RoundFinding } from '../findings/readings/read-rounds';
import type { TraceFinding } from '../findings/readings/read-traces';
import { LEFT_OUT } from './reading-words';
import type { Report } from './report-schema';
import { reportLobes } from './report-lobes';
import { offsetOf } from '../findings/readings/zero-passes';
import { tellFault } from './fault-words';
import type { Speech } from './speech';
import { type ToldVerdict, tellTogether, tellVerdict } from './verdict-words';

type ReportedTrial = Report['trials'][number];

/** Overlap is told at 0.050 in, mm. */
const OVERLAP_AT = USUAL_HEIGHT.in;
/** Degrees from point to point of a curve that is only to be drawn. */
const DRAWN_STEP = 4;
/** Heights at which the lean is shown, as shares of the peak. */
const LEAN_AT = [0.95, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0.15, 0.1, 0.05];

const sameReported = remember<TrialFinding, ReportedTrial>();

/** A trial as the Report has it. What is told of it names its own readings alone. */
export const reportTrial = (
  trial: TrialFinding,
  card: CompletedCard,
  cylinder: CylinderKnown,
  speech: Speech,
): ReportedTrial => sameReported(trial, [card, cylinder, speech.units], () => tellTrial(trial, card, cylinder, speech));

function tellTrial(trial: TrialFinding, card: CompletedCard, cylinder: CylinderKnown, speech: Speech): ReportedTrial {
  const { id, number, note, begunAt, why, decision } = trial;
  // Pictures show the first bank.
  const [first] = trial.banks;
  const lobes = { intake: measuredLobe(first, card, 'intake'), exhaust: measuredLobe(first, card, 'exhaust') };
  const { separation, overlap, trapped } = whatIf(lobes, { intake: 0, exhaust: 0 }, OVERLAP_AT, cylinder);
  const cams = decision.cams.map((each) => tellOnce(each, speech));
  const banked = trial.banks.length > 1;
  return {
    id,
    number,
    note,
    cylinder: trial.cylinder,
    everyLobe: reportLobes(trial.lobes, speech.units),
    begunAt,
    why,
    verdict: tellTogether(
      cams.map(({ verdict }) => verdict),
      cams.map(({ cam, bank }) => `${cam === 'exhaust' ? 'Exhaust' : 'Intake'}${banked ? ` of bank ${bank}` : ''}`),
    ),
    cams,
    faults: decision.faults.map((each) => tellFault(each, speech)),
    rounds: trial.rounds.map(reportRound),
    traces: trial.traces.map(reportTrace),
    views: trial.views,
    lobes,
    stands: { separation, overlap, trapped },
    dots: dotsOf(first?.rounds ?? [], card),
  };
}

/** Most rounds are told as they were found: a build has hundreds, told again at every reading. */
const reportRound = (round: RoundFinding): ReportedTrial['rounds'][number] =>
  round.readings.every(({ aside }) => aside === null)
    ? (round as RoundFinding & { readonly readings: readonly { readonly aside: null }[] })
    : {
        ...round,
        readings: round.readings.map((reading) => ({ ...reading, aside: reading.aside && LEFT_OUT[reading.aside] })),
      };

type ToldCam = Omit<CamFinding, 'verdict'> & { readonly limit: number; readonly verdict: ToldVerdict };

const sameCam = remember<CamFinding, ToldCam>();

/** Verdicts in words, kept with what was found: a trial that is over is not decided again, and has nothing new to say. */
const tellOnce = (cam: CamFinding, speech: Speech): ToldCam =>
  sameCam(cam, [speech.units], () => ({
    ...cam,
    limit: cam.verdict.judged.limit,
    verdict: tellVerdict(cam.verdict, speech),
  }));

function reportTrace(trace: TraceFinding): ReportedTrial['traces'][number] {
  const { curve, shift, dots, zero: _zero, ...rest } = trace;
  if (!curve) return { ...rest, figures: null, curve: [], lean: [], dots: [...dots] };
  const steps = Math.floor((curve.to - curve.from) / DRAWN_STEP);
  const { peak, area, steepest, zeroOff, every, whole } = curve;
  return {
    ...rest,
    figures: { peak, nose: curve.nose + shift, area, steepest, zeroOff, every, whole },
    curve: Array.from({ length: steps + 1 }, (_, i): [number, number] => {
      const at = curve.from + i * DRAWN_STEP;
      return [at + shift, Math.max(0, curve.lift(at))];
    }),
    lean: LEAN_AT.flatMap((share) => {
      const centre = curve.centre(share * peak);
      return centre ? [{ lift: share * peak, centre: centre.angle + shift, standard: centre.standard }] : [];
    }),
    dots: [...dots],
  };
}

/** Readings of a trial as marks on the lobes. */
function dotsOf(rounds: readonly RoundFinding[], card: CompletedCard): ReportedTrial['dots'] {
  const dots: ReportedTrial['dots'] = [];
  for (const { valve, method, zero, readings } of rounds) {
    const { reads, from } = READ_METHODS[method];
    if (reads === 'curve') continue;
    const offset = offsetOf(zero);
    const curve = card[valve].curve;
    const nose = curve?.nose ?? USUAL_NOSE[valve];
    for (const { entry, at, figure, aside } of readings) {
      if (at === null || aside !== null) continue;
      // A wheel shows only half a cycle: the exhaust opens before −180.
      const angle = nose + wrap180(at - offset - nose);
      const lift = from === 'peak' ? (curve ? curve.peak - figure : null) : figure;
      dots.push({ entry, valve, angle, lift });
    }
  }
  return dots;
}

/** Where a nose stands when nobody has said it: near enough to tell the half of the cycle. */
const USUAL_NOSE = { intake: 110, exhaust: -110 } as const;
