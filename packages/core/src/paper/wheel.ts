import { topOnWheel } from '../crank/firing';
import { faceNumbers, runningSign } from '../crank/ring-face';
import type { Rotation } from '../crank/rotation';
import type { WheelRing } from '../crank/wheel';
import { wrap360 } from '../units/angle';
import { type Mark, cross, line, onCircle } from './drawing';

/** A place that is named on the wheel: ring position, crank degrees. */
export interface NamedPlace {
  readonly at: number;
  readonly name: string;
  readonly tone: 'ink' | 'intake' | 'exhaust';
}

/** A degree wheel to be printed. Lengths mm. */
export interface PaperWheel {
  readonly diameter: number;
  /** From the outside in: one, or two. */
  readonly rings: readonly Exclude<WheelRing, { ring: 'rim' }>[];
  /** As seen from the wheel. */
  readonly rotation: Rotation;
  /** 0: only a cross. */
  readonly hole: number;
  readonly bolts: { readonly circle: number; readonly count: number; readonly size: number } | null;
  readonly places: readonly NamedPlace[];
}

/** Marks nearer together than this run into one another, mm. From memory. */
const NEAREST = 0.45;
const STEPS = [
  { every: 0.25, long: 0.24, width: 0.1 },
  { every: 0.5, long: 0.36, width: 0.12 },
  { every: 1, long: 0.52, width: 0.15 },
  { every: 5, long: 0.76, width: 0.2 },
  { every: 10, long: 1, width: 0.3 },
] as const;

const within = (value: number, least: number, most: number): number => Math.max(least, Math.min(most, value));

/**
 * The finest marks that a ring of a radius has, crank degrees: quarters where they stand apart, else halves, else whole ones.
 * @example finestStep(150) // 0.25: 0.65 mm apart
 */
export const finestStep = (radius: number): number =>
  [0.25, 0.5].find((step) => (Math.PI * radius * step) / 180 >= NEAREST) ?? 1;

/** Marks of one ring at a radius, inward; and how far inward its numbers reach, mm. */
function ringMarks(ring: PaperWheel['rings'][number], radius: number, place: (at: number) => number) {
  const tall = within(radius * 0.075, 3.5, 13);
  const size = within(radius * 0.05, 2.2, 7);
  const finest = finestStep(radius);
  const marks: Mark[] = [{ kind: 'circle', x: 0, y: 0, r: radius, width: 0.2 }];
  for (let quarter = 0; quarter < 1440; quarter += finest * 4) {
    const at = quarter / 4;
    const step = STEPS.findLast(({ every }) => at % every === 0) ?? STEPS[0];
    const angle = place(at);
    const [x1, y1] = onCircle(radius, angle);
    const [x2, y2] = onCircle(radius - tall * step.long, angle);
    marks.push(line(x1, y1, x2, y2, step.width));
  }
  const reach = radius - tall - size * 0.9;
  for (const { at, text, strong } of faceNumbers(ring)) {
    const angle = place(at);
    const [x, y] = onCircle(reach, angle);
    marks.push({ kind: 'words', x, y, size, text, anchor: 'middle', turn: angle, ...(strong && { bold: true }) });
  }
  return { marks, inside: reach - size };
}

/**
 * A degree wheel about its middle, to be laminated, bolted on and read against a pointer at the top.
 * @returns marks in true millimetres; a mark of ring position p stands at −p the way the engine turns, clockwise from the top.
 * Source: 1° at a radius R is πR ÷ 180 (geometry).
 */
export function wheelDrawing({ diameter, rings, rotation, hole, bolts, places }: PaperWheel): Mark[] {
  const sign = runningSign(rotation);
  const place = (at: number): number => -sign * at;
  const marks: Mark[] = [];
  let radius = diameter / 2;
  for (const ring of rings) {
    const drawn = ringMarks(ring, radius, place);
    marks.push(...drawn.marks);
    radius = drawn.inside - 1;
  }
  marks.push(...placesMarks(places, radius, place), ...hubMarks(hole, bolts, radius, sign));
  return marks;
}

/** Where the names stand, and how long they may be: shares of the radius of the innermost ring. */
const NAMES_AT = 0.88;
const NAMES_LONG = 0.4;

/** A line inward from the innermost ring at each place, led to its name. */
function placesMarks(places: readonly NamedPlace[], radius: number, place: (at: number) => number): Mark[] {
  const size = within(radius * 0.05, 2, 4);
  /** Letters side by side at the inner end of the names take so much, degrees. */
  const wide = ((size * 1.2) / (radius * (NAMES_AT - NAMES_LONG / 2))) * (180 / Math.PI);
  return apart(places, wide).flatMap(({ at, name, tone, stands }): Mark[] => {
    const angle = place(stands);
    const corners = [
      onCircle(radius, place(at)),
      onCircle(radius * 0.96, place(at)),
      onCircle(radius * NAMES_AT + 1, angle),
    ];
    const [x, y] = onCircle(radius * NAMES_AT, angle);
    // Letters run inward along the line, and never stand on their heads.
    const isRight = wrap360(angle) < 180;
    return [
      ...corners.slice(1).map(([x2, y2], i): Mark => {
        const [x1, y1] = corners[i] ?? [x2, y2];
        return line(x1, y1, x2, y2, 0.3, { tone });
      }),
      {
        kind: 'words',
        x,
        y,
        size,
        text: name,
        anchor: isRight ? 'end' : 'start',
        turn: isRight ? angle - 90 : angle + 90,
        room: radius * NAMES_LONG,
        bold: true,
        tone,
      },
    ];
  });
}

/** In the same place, as far as anybody can see: crank degrees. */
const SAME = 0.5;
const PUSHES = 80;

/** Where the widest empty part of the wheel ends: from there on round, nothing has neighbours behind it. Crank degrees. */
function afterWidestGap(places: readonly NamedPlace[]): number {
  const round = places.map(({ at }) => wrap360(at)).sort((a, b) => a - b);
  const gaps = round.map((at, i) => ({ at, gap: wrap360(at - (round.at(i - 1) ?? at)) }));
  return gaps.reduce((widest, each) => (each.gap > widest.gap ? each : widest), { at: 0, gap: 0 }).at;
}

/** Alike places under one name; names that would be written over one another pushed apart. Crank degrees. */
function apart(places: readonly NamedPlace[], wide: number): (NamedPlace & { readonly stands: number })[] {
  const first = afterWidestGap(places);
  const round = ({ at }: NamedPlace): number => wrap360(at - first);
  const kept: NamedPlace[] = [];
  for (const place of [...places].sort((a, b) => round(a) - round(b))) {
    const last = kept.at(-1);
    if (last && round(place) - round(last) < SAME) {
      const tone = last.tone === place.tone ? last.tone : 'ink';
      kept[kept.length - 1] = { ...last, name: `${last.name}, ${place.name}`, tone };
    } else kept.push(place);
  }
  const stands = kept.map(round);
  for (let push = 0; push < PUSHES; push += 1)
    for (let i = 1; i < stands.length; i += 1) {
      const [before, after] = [stands[i - 1] ?? 0, stands[i] ?? 0];
      const missing = wide - (after - before);
      if (missing <= 0) continue;
      stands[i - 1] = before - missing / 2;
      stands[i] = after + missing / 2;
    }
  return kept.map((place, i) => ({ ...place, stands: first + (stands[i] ?? 0) }));
}

function hubMarks(hole: number, bolts: PaperWheel['bolts'], radius: number, sign: 1 | -1): Mark[] {
  const marks = cross(0, 0, Math.max(6, hole / 2 + 4));
  if (hole > 0) marks.push({ kind: 'circle', x: 0, y: 0, r: hole / 2, width: 0.2 });
  if (bolts)
    for (let i = 0; i < bolts.count; i += 1) {
      const [x, y] = onCircle(bolts.circle / 2, (360 * i) / bolts.count);
      marks.push(...cross(x, y, bolts.size / 2 + 2), { kind: 'circle', x, y, r: bolts.size / 2, width: 0.2 });
    }
  return [...marks, ...arrow(radius * 0.32, sign)];
}

/** An arc with a head: the way the engine turns, as seen from the wheel. */
function arrow(radius: number, sign: 1 | -1): Mark[] {
  const [from, to, step] = [-40, 40, 4];
  const marks: Mark[] = [];
  for (let at = from; at < to; at += step) {
    const [x1, y1] = onCircle(radius, at);
    const [x2, y2] = onCircle(radius, at + step);
    marks.push(line(x1, y1, x2, y2, 0.5));
  }
  const tip = sign * (to + 8);
  marks.push({
    kind: 'shape',
    fill: true,
    points: [onCircle(radius, tip), onCircle(radius + 2.5, sign * to), onCircle(radius - 2.5, sign * to)],
  });
  const [x, y] = onCircle(radius - 5, 0);
  marks.push({
    kind: 'words',
    x,
    y,
    size: within(radius * 0.12, 2.2, 4),
    text: 'turns this way',
    anchor: 'middle',
    tone: 'soft',
  });
  return marks;
}

/**
 * Where each cylinder fires, on a wheel that is set to TDC of one of them.
 * @param cylinders how far after that one each fires, crank degrees.
 */
export const firingPlaces = (
  cylinders: readonly { readonly cylinder: number; readonly after: number }[],
): NamedPlace[] =>
  cylinders.map(({ cylinder, after }) => ({ at: topOnWheel(after), name: `TDC ${cylinder}`, tone: 'ink' }));

/** A pointer to be cut out, its point at the origin, pointing down. */
export const pointerDrawing = (): Mark[] => [
  {
    kind: 'shape',
    fill: false,
    points: [
      [0, 0],
      [-9, -34],
      [9, -34],
    ],
  },
  line(0, 0, 0, -30, 0.15),
  { kind: 'words', x: 0, y: -37.5, size: 2.6, text: 'pointer: cut it out, stiffen it', anchor: 'middle', tone: 'soft' },
];
