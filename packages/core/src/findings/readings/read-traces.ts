import { cylinderTrouble } from '../../crank/firing-order';
import type { Valve } from '../../cam/card';
import { type TraceCurve, readTrace } from '../../cam/trace';
import type { TraceConditions, TracePoint } from '../../cam/trace-points';
import { ringPosition } from '../../crank/wheel';
import { type Outcome, type Problem } from '../../problem';
import { wrap180 } from '../../units/angle';
import type { EntryOf } from '../../record/entry';
import type { Ground, Trial } from '../../record/parts';
import { bankOf, methodOf, type SitsOn } from './read-rounds';
import { figureOfReading } from './round-trouble';
import {
  type SettingFinding,
  type ZeroOfReading,
  offsetOf,
  resolutionOf,
  wheelStepOf,
  zeroOfReading,
} from './zero-passes';

/** A point of a trace as it is shown: cycle angle, crank degrees, and lift, mm. */
export interface TraceDot {
  /** The reading that it is, or the trace and its place there. */
  readonly entry: string;
  readonly place: number | null;
  readonly angle: number;
  readonly lift: number;
  /** How far it lies off its neighbours, mm, where that is out of the ordinary. */
  readonly stray: number | null;
}

/** A trace and the curve through it. */
export interface TraceFinding {
  /** The trace.recorded entry, or the round of a typed one. */
  readonly id: string;
  readonly typed: boolean;
  readonly name: string | null;
  readonly bank: 1 | 2;
  readonly valve: Valve;
  readonly sitsOn: SitsOn;
  readonly curve: TraceCurve | null;
  /** To be added to the curve's angles to make them cycle angles. */
  readonly shift: number;
  /** Does anybody know where TDC is on its scale? */
  readonly placed: boolean;
  readonly zero: ZeroOfReading | null;
  readonly zeroProved: boolean;
  readonly problem: Problem | null;
  readonly dots: readonly TraceDot[];
}

/** How far lift may differ from base circle to base circle, mm: 0.0012 in. From memory. */
const CLOSES = 0.03;

/** Fits are kept with the entries that they were made from: a logbook is derived again at every reading, its traces hardly change. */
const fitted = new WeakMap<object, { readonly key: string; readonly result: Outcome<{ curve: TraceCurve }> }>();

function fitOnce(of: object, key: string, points: readonly TracePoint[], conditions: TraceConditions) {
  const known = fitted.get(of);
  if (known?.key === key) return known.result;
  const result = readTrace(points, conditions);
  fitted.set(of, { key, result });
  return result;
}

/** How the points of a trace err on this build: indicator and wheel as described, else usual ones. */
export function conditionsOf(build: Ground): TraceConditions {
  const described = build.description.body;
  const resolution = resolutionOf(described);
  return {
    liftSd: resolution / Math.sqrt(12),
    angleSd: wheelStepOf(described) / Math.sqrt(12),
    closes: Math.max(CLOSES, 3 * resolution),
  };
}

interface Loose {
  readonly entry: string;
  readonly place: number | null;
  readonly angle: number;
  readonly lift: number;
}

/** The traces of a trial, typed ones first. */
export function findTraces(trial: Trial, build: Ground, settings: ReadonlyMap<string, SettingFinding>): TraceFinding[] {
  const conditions = conditionsOf(build);
  const typed = trial.rounds
    .filter((round) => methodOf(round) === 'trace')
    .flatMap((round): TraceFinding[] => {
      const [first] = round.readings;
      if (!first) return [];
      const usable = round.readings.filter(({ body }) => body.approach === 'forward' && body.wheel);
      const points = usable.map(({ id, body }) => ({
        entry: id,
        place: null,
        angle: body.wheel ? ringPosition(body.wheel) : 0,
        lift: figureOfReading(body),
      }));
      const key = `${usable.map(({ id }) => id).join()} ${JSON.stringify(conditions)}`;
      return [
        finish({
          id: round.id,
          typed: true,
          name: null,
          bank: bankOf(first.body.cylinder, build),
          body: first.body,
          zero: zeroOfReading(first, build, settings),
          placed: true,
          points: inTurn(points),
          fit: (of) => fitOnce(first, key, of, conditions),
          build,
        }),
      ];
    });
  const recorded = trial.traces.map((entry): TraceFinding => {
    const left = build.voidedPoints.get(entry.id);
    const points = entry.body.points.flatMap(([angle, lift], place) =>
      left?.has(place) ? [] : [{ entry: entry.id, place, angle, lift }],
    );
    const key = `${[...(left ?? [])].join()} ${JSON.stringify(conditions)}`;
    return finish({
      id: entry.id,
      typed: false,
      name: entry.body.name ?? null,
      bank: bankOf(entry.body.cylinder, build),
      body: entry.body,
      zero: zeroOfReading(entry, build, settings),
      placed: entry.body.counted === 'from-zero',
      points,
      fit: (of) => fitOnce(entry, key, of, conditions),
      build,
    });
  });
  return [...typed, ...recorded];
}

/** Readings of a wheel in the order in which they were taken never turn back: each is the next of that name on the way round. */
function inTurn(points: readonly Loose[]): Loose[] {
  let before: number | null = null;
  return points.map((point) => {
    const angle: number = before === null ? point.angle : before + wrapForward(point.angle - before);
    before = angle;
    return { ...point, angle };
  });
}

/** Steps are small: a reading a little behind the one before is a repeat, not a turn further. */
const wrapForward = (step: number): number => wrap180(step);

function finish(of: {
  readonly id: string;
  readonly typed: boolean;
  readonly name: string | null;
  readonly bank: 1 | 2;
  readonly body: EntryOf<'reading.taken' | 'trace.recorded'>['body'];
  readonly zero: ZeroOfReading | null;
  readonly placed: boolean;
  readonly points: readonly Loose[];
  readonly fit: (points: readonly TracePoint[]) => Outcome<{ curve: TraceCurve }>;
  readonly build: Ground;
}): TraceFinding {
  const { id, typed, name, body, zero, points } = of;
  const nowhere = cylinderTrouble(body.cylinder, of.build.description.body.engine.cylinders);
  const spoiled = nowhere ?? (body.approach === 'backward' ? TURNED_BACK : null);
  const found: Outcome<{ curve: TraceCurve }> = spoiled ? { ok: false, problem: spoiled } : of.fit(points);
  const curve = found.ok ? found.curve : null;
  const offset = offsetOf(zero);
  const shift = curve ? wrap180(curve.nose - offset) - curve.nose : -offset;
  const strays = new Map(curve?.strays.map(({ index, off }) => [index, off]));
  return {
    id,
    typed,
    name,
    bank: of.bank,
    valve: body.valve,
    sitsOn: body.sitsOn,
    curve,
    shift,
    placed: of.placed,
    zero,
    zeroProved: zero?.proved ?? false,
    problem: found.ok || (typed && !nowhere && points.length < SOON) ? null : found.problem,
    dots: points.map(({ entry, place, angle, lift }, i) => ({
      entry,
      place,
      angle: (curve ? laid(angle, curve) : angle) + shift,
      lift,
      stray: strays.get(i) ?? null,
    })),
  };
}

const TURNED_BACK: Problem = {
  message: 'It was taken turning backwards, so the slack in the timing drive is in it.',
  remedy: 'Take it again the way the engine runs.',
};

/** A typed trace is not found fault with before it has this many points. */
const SOON = 12;

/** The angle of a point on the piece of the curve where the lobe is. */
const laid = (angle: number, { from }: TraceCurve): number => from + ((((angle - from) % 720) + 720) % 720);
