import { rimDistance, roundOf, timingTape } from '../crank/rim';
import { MM_PER_INCH, inchFraction } from '../units/length';
import { type Mark, line } from './drawing';

/** A tape to be glued round the rim of a balancer or flywheel. */
export interface RimTape {
  /** Once round the rim without the paper, mm. */
  readonly round: number;
  /** Of the paper, mm. */
  readonly thickness: number;
  /** Crank degrees either side of TDC; 180 is all round. */
  readonly span: number;
  /** Other cylinders' TDCs, crank degrees after that of the first. */
  readonly tdcs: readonly { readonly at: number; readonly name: string }[];
  /** Ignition marks to be named, crank degrees before TDC. */
  readonly timing: readonly number[];
}

/** Common paper, mm. From memory. */
export const USUAL_PAPER = 0.1;

/**
 * Once round the marks of a tape, mm: the paper lies outside, and its middle is what keeps its length.
 * @example tapeRound({ round: 565.5, thickness: 0.1 }) // 565.81
 * Source: circumference π(D + paper thickness), geometry.
 */
export const tapeRound = ({ round, thickness }: Pick<RimTape, 'round' | 'thickness'>): number =>
  roundOf(round / Math.PI + thickness);

export const TAPE_HEIGHT = 22;
/** Degrees nearer together than this are drawn at every second one only, mm. */
const NEAREST = 0.7;

/**
 * The tape along a line: x runs from its begin, TDC at the middle; before TDC stands to the right, the arrow points the way the rim moves.
 * What lies before TDC comes to the pointer first.
 * @returns marks and how long it is, true millimetres.
 */
export function tapeDrawing(tape: RimTape): { readonly length: number; readonly marks: readonly Mark[] } {
  const round = tapeRound(tape);
  const length = rimDistance(2 * tape.span, round);
  const middle = length / 2;
  /** @param before crank degrees before TDC; after is negative. */
  const x = (before: number): number => middle + rimDistance(before, round);
  const each = rimDistance(1, round) < NEAREST ? 2 : 1;
  const marks: Mark[] = [line(0, 0, length, 0, 0.2), line(0, TAPE_HEIGHT, length, TAPE_HEIGHT, 0.2)];
  for (let before = -tape.span; before <= tape.span; before += 1) {
    if (before % each !== 0 && before % 5 !== 0) continue;
    const tall = before % 10 === 0 ? 9 : before % 5 === 0 ? 6.5 : 4;
    marks.push(line(x(before), 0, x(before), tall, before % 10 === 0 ? 0.3 : 0.15));
    if (before % 10 !== 0 || Math.abs(before) === 180) continue;
    const text = before === 0 ? 'TDC' : String(Math.abs(before));
    marks.push({ kind: 'words', x: x(before), y: 11.4, size: 3, text, anchor: 'middle', bold: before === 0 });
  }
  marks.push(...sideWords(tape, x), ...named(tape, x));
  return { length, marks };
}

/** "before" and "after" every 60°, and the arrow. */
function sideWords({ span }: RimTape, x: (before: number) => number): Mark[] {
  const marks: Mark[] = [];
  for (let at = 15; at < span; at += 40)
    for (const way of [1, -1])
      marks.push({
        kind: 'words',
        x: x(way * at),
        y: 15.4,
        size: 2.4,
        text: way > 0 ? 'before' : 'after',
        anchor: 'middle',
        tone: 'soft',
      });
  const [from, to] = [x(0) - 4, x(0) + 10];
  marks.push(
    line(from, 19, to, 19, 0.4),
    {
      kind: 'shape',
      fill: true,
      points: [
        [to + 4, 19],
        [to, 17.6],
        [to, 20.4],
      ],
    },
    { kind: 'words', x: to + 5.5, y: 19, size: 2.4, text: 'moves this way', anchor: 'start', tone: 'soft' },
  );
  return marks;
}

/** TDCs of the other cylinders and ignition marks, right over the tape. */
function named({ tdcs, timing, span }: RimTape, x: (before: number) => number): Mark[] {
  const places = new Map<number, string[]>();
  for (const { at, name } of tdcs) {
    const before = Math.round(-(((at + 180) % 360) - 180) * 100) / 100;
    places.set(before, [...(places.get(before) ?? []), name]);
  }
  // Companions stand in one place, a turn apart.
  const tops = [...places].flatMap(([before, names]): Mark[] =>
    Math.abs(before) > span || before === 0
      ? []
      : [
          line(x(before), 0, x(before), 16, 0.4),
          { kind: 'words', x: x(before), y: 18.4, size: 2.6, text: names.join(', '), anchor: 'middle', bold: true },
        ],
  );
  const sparks = timing.flatMap((before): Mark[] =>
    before > span
      ? []
      : [
          {
            kind: 'shape',
            fill: true,
            points: [
              [x(before), 13.2],
              [x(before) - 1, 16],
              [x(before) + 1, 16],
            ],
            tone: 'exhaust',
          },
        ],
  );
  return [...tops, ...sparks];
}

/** Distances of marks to be stamped on the bare rim, from TDC: to the next 64th of an inch as on a rule, and in mm. */
export const stampedMarks = (
  round: number,
): readonly { readonly degrees: number; readonly inches: string; readonly mm: string }[] =>
  timingTape(round, 5, 40).map(({ degrees, distance }) => ({
    degrees,
    inches: inchFraction(Math.round(distance / SIXTY_FOURTH) * SIXTY_FOURTH) ?? '',
    mm: `${distance.toFixed(2)} mm`,
  }));

const SIXTY_FOURTH = MM_PER_INCH / 64;
