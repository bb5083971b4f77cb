import { wheelDegrees } from '../units/degrees';
import { decimal } from '../units/decimal';
import { type LengthUnit, formatLength } from '../units/length';
import {
  type CamCard,
  EVENT_NAMES,
  type LobeCard,
  type TimingLine,
  VALVES,
  type Valve,
  durationOf,
  eventCentre,
} from './card';
import type { Problem } from '../problem';
import { heightWords, lineKey } from './timing-line';

/** Names one figure of a card: `intake.centreline`, `exhaust.opens@1.27`, `lobeSeparation`. */
export type FigureKey = string;

/** Printed figures that cannot all be right. */
export interface Contradiction extends Problem {
  readonly figures: readonly FigureKey[];
  /**
   * The valve whose printed centreline and events lie further apart than lobes usually lean. One lobe in many does lean so far: like may be compared with
   * like, and who reads both ways sees whether the card is right.
   */
  readonly lean?: Valve;
}

/** Cards print whole degrees: two figures may differ by this much and still be one. */
const ROUNDED = 1;
/** A lobe leans up to about this; beyond it the centreline and the events do not belong together. Common practice, no source. */
const MOST_LEAN = 3;
/** Lifts are printed to a thousandth of an inch each; their product may be this far off, mm. */
const LIFT_ROUNDED = 0.13;
const SLACK = 1e-9;

/** What of a card cannot all be right, with the figures that disagree and what would reconcile them. */
export function findContradictions(card: CamCard, units: LengthUnit): Contradiction[] {
  const ofLobes = VALVES.flatMap((valve) => ofLobe(valve, card[valve] ?? {}, card.centrelineMeans === 'events', units));
  return [...ofLobes, ...ofCam(card)];
}

const deg = (value: number): string => wheelDegrees(Math.round(value * 100) / 100);

/** @param byEvents the card says that its centreline is the middle of the events: then no lean lies between the two. */
function ofLobe(valve: Valve, lobe: LobeCard, byEvents: boolean, units: LengthUnit): Contradiction[] {
  const found: Contradiction[] = [];
  const names = EVENT_NAMES[valve];
  const length = (mm: number): string => formatLength(Math.round(mm * 1e4) / 1e4, units);
  const timing = lobe.timing ?? [];
  for (const line of timing) {
    const key = (name: string): string => `${valve}.${name}@${lineKey(line)}`;
    const where = heightWords(line, units);
    const lift = line.at === 'lobe' ? lobe.lobeLift : lobe.valveLift;
    if (line.height !== null && lift !== undefined && line.height >= lift)
      found.push({
        figures: [key('duration'), key('opens'), key('closes')],
        message: `The ${valve} is checked ${where}, but it lifts only ${length(lift)}.`,
        remedy: 'Check the unit of both, and whether the lift is that of the lobe or of the valve.',
      });
    const { opens, closes, duration } = line;
    if (opens !== undefined && closes !== undefined && duration !== undefined) {
      const sum = durationOf(opens, closes);
      if (Math.abs(sum - duration) > ROUNDED + SLACK)
        found.push({
          figures: [key('duration'), key('opens'), key('closes')],
          message: `${names.opens} ${deg(opens)} + 180 + ${names.closes} ${deg(closes)} is ${deg(sum)}, but the card says ${deg(duration)} ${where}.`,
          remedy: `They would agree with a duration of ${deg(sum)}, with ${names.opens} ${deg(duration - 180 - closes)}, or with ${names.closes} ${deg(duration - 180 - opens)}.`,
        });
    }
    if (opens !== undefined && closes !== undefined && lobe.centreline !== undefined) {
      const centre = eventCentre(valve, opens, closes);
      if (Math.abs(centre - lobe.centreline) > MOST_LEAN + SLACK)
        found.push({
          figures: [key('opens'), key('closes'), `${valve}.centreline`],
          message: `The events ${where} are centred on ${deg(centre)}, but the card says ${names.centreline} ${deg(lobe.centreline)}.`,
          remedy: `A leaning lobe makes up to about ${MOST_LEAN}°, not ${deg(Math.abs(centre - lobe.centreline))}. Check both events and the centreline.`,
          ...(byEvents ? {} : { lean: valve }),
        });
    }
  }
  found.push(...fallingDurations(valve, timing, units));
  const { lobeLift, valveLift, ratio } = lobe;
  if (lobeLift !== undefined && valveLift !== undefined && ratio !== undefined) {
    const full = lobeLift * ratio;
    const least = full - Math.max(lobe.lashHot ?? 0, lobe.lashCold ?? 0);
    if (valveLift > full + LIFT_ROUNDED || valveLift < least - LIFT_ROUNDED)
      found.push({
        figures: [`${valve}.lobeLift`, `${valve}.valveLift`, `${valve}.ratio`],
        message: `${length(lobeLift)} × ${decimal(ratio, 2)} is ${length(full)}, but the card says ${length(valveLift)} at the valve.`,
        remedy: `They would agree with a ratio of ${decimal(valveLift / lobeLift, 2)}, or a lobe lift of ${length(valveLift / ratio)}.`,
      });
  }
  return found;
}

/** The higher up the lobe, the shorter it lasts. */
function fallingDurations(valve: Valve, timing: readonly TimingLine[], units: LengthUnit): Contradiction[] {
  const stated = timing
    .flatMap((line) => {
      const { opens, closes } = line;
      const duration =
        line.duration ?? (opens !== undefined && closes !== undefined ? durationOf(opens, closes) : undefined);
      return line.height === null || duration === undefined ? [] : [{ line, height: line.height, duration }];
    })
    .sort((a, b) => a.height - b.height);
  return stated.flatMap(({ line, duration, height }, i) => {
    const lower = stated[i - 1];
    if (!lower || lower.line.at !== line.at || lower.height === height || duration < lower.duration) return [];
    return [
      {
        figures: [`${valve}.duration@${lineKey(line)}`, `${valve}.duration@${lineKey(lower.line)}`],
        message: `The ${valve} lasts ${deg(duration)} ${heightWords(line, units)}, no less than ${deg(lower.duration)} ${heightWords(lower.line, units)}.`,
        remedy: 'Higher up a lobe is always shorter. Check both heights and both durations.',
      },
    ];
  });
}

function ofCam({ intake, exhaust, lobeSeparation, groundInAdvance }: CamCard): Contradiction[] {
  const [icl, ecl] = [intake?.centreline, exhaust?.centreline];
  if (lobeSeparation === undefined) {
    if (icl === undefined || ecl === undefined || groundInAdvance === undefined) return [];
    const advance = (ecl - icl) / 2;
    return Math.abs(advance - groundInAdvance) <= ROUNDED + SLACK
      ? []
      : [
          {
            figures: ['intake.centreline', 'exhaust.centreline', 'groundInAdvance'],
            message: `ICL ${deg(icl)} and ECL ${deg(ecl)} mean ${deg(advance)} ground in, but the card says ${deg(groundInAdvance)}.`,
            remedy: 'Check the two centrelines and the ground-in advance.',
          },
        ];
  }
  if (icl !== undefined && ecl !== undefined) {
    const lsa = (icl + ecl) / 2;
    if (Math.abs(lsa - lobeSeparation) > ROUNDED + SLACK)
      return [
        {
          figures: ['intake.centreline', 'exhaust.centreline', 'lobeSeparation'],
          message: `ICL ${deg(icl)} and ECL ${deg(ecl)} make an LSA of ${deg(lsa)}, but the card says ${deg(lobeSeparation)}.`,
          remedy: `They would agree with ICL ${deg(2 * lobeSeparation - ecl)}, or with ECL ${deg(2 * lobeSeparation - icl)}.`,
        },
      ];
  }
  if (icl !== undefined && groundInAdvance !== undefined) {
    const advance = lobeSeparation - icl;
    if (Math.abs(advance - groundInAdvance) > ROUNDED + SLACK)
      return [
        {
          figures: ['intake.centreline', 'groundInAdvance', 'lobeSeparation'],
          message: `LSA ${deg(lobeSeparation)} − ICL ${deg(icl)} is ${deg(advance)}, but the card says ${deg(groundInAdvance)} ground in.`,
          remedy: `They would agree with ICL ${deg(lobeSeparation - groundInAdvance)}.`,
        },
      ];
  }
  return [];
}
