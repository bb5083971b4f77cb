import { type Sample, formatLine } from '../instruments/line';
import type { Random } from '../statistics/random';

/** How a bench box that does not exist errs. All 0: not at all. */
export interface BoxErrors {
  /** Steps of its encoder, degrees, and of its indicators, mm. */
  readonly angleStep: number;
  readonly liftStep: number;
  /** Standard deviations of what it measures, degrees and mm. */
  readonly angleNoise: number;
  readonly liftNoise: number;
  /** Shares of the lines that never arrive, and that arrive damaged. */
  readonly dropped: number;
  readonly damaged: number;
}

/** A tenth of a degree and a hundredth of a millimetre, as common ones have; a line in a hundred lost, one in a hundred damaged. From memory. */
export const USUAL_BOX: BoxErrors = {
  angleStep: 0.1,
  liftStep: 0.01,
  angleNoise: 0.02,
  liftNoise: 0.002,
  dropped: 0.01,
  damaged: 0.01,
};
export const PERFECT_BOX: BoxErrors = {
  angleStep: 0,
  liftStep: 0,
  angleNoise: 0,
  liftNoise: 0,
  dropped: 0,
  damaged: 0,
};

const toStep = (value: number, step: number): number => (step > 0 ? Math.round(value / step) * step : value);
const SIGNS = '0123456789.- abcdefyx?\u00ff';

/** A line as a bad plug delivers it: a sign changed, lost or doubled, the end cut off, or rubbish. */
export function damage(line: string, random: Random): string {
  const at = Math.floor(random.even() * line.length);
  const kind = Math.floor(random.even() * 5);
  if (kind === 0) return line.slice(0, at);
  if (kind === 1) return line.slice(0, at) + line.slice(at + 1);
  if (kind === 2) return line.slice(0, at) + (line[at] ?? '') + line.slice(at);
  if (kind === 3)
    return Array.from({ length: 40 }, () => SIGNS[Math.floor(random.even() * SIGNS.length)] ?? '?').join('');
  const others = [...SIGNS].filter((sign) => sign !== line[at]);
  const other = others[Math.floor(random.even() * others.length)] ?? '?';
  return line.slice(0, at) + other + line.slice(at + 1);
}

/** A bench box: says a line for each moment that it is told of, or none where the line is lost. */
export function makeBenchBox(box: string, errors: BoxErrors, random: Random, unit: 'mm' | 'in' = 'mm') {
  let seq = 0;
  const lift = (mm: number | null): number | null =>
    mm === null ? null : toStep(mm + random.normal(errors.liftNoise), errors.liftStep);
  return (ms: number, angle: number, lifts: Sample['lifts']): string | null => {
    seq += 1;
    const measured = toStep(angle + random.normal(errors.angleNoise), errors.angleStep);
    const line = formatLine(
      { box, seq, ms: Math.round(ms), angle: measured, lifts: [lift(lifts[0]), lift(lifts[1])] },
      unit,
    );
    if (random.even() < errors.dropped) return null;
    return random.even() < errors.damaged ? damage(line, random) : line;
  };
}
