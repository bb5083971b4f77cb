/** What is drawn on paper: lines and words in true millimetres, x to the right, y downward. What makes a PDF of it knows nothing of engines. */
export type Mark =
  | {
      readonly kind: 'line';
      readonly x1: number;
      readonly y1: number;
      readonly x2: number;
      readonly y2: number;
      readonly width: number;
      readonly tone?: Tone;
      readonly dashed?: boolean;
    }
  | {
      readonly kind: 'circle';
      readonly x: number;
      readonly y: number;
      readonly r: number;
      readonly width: number;
      readonly tone?: Tone;
      readonly dashed?: boolean;
    }
  | {
      readonly kind: 'shape';
      readonly points: readonly (readonly [x: number, y: number])[];
      readonly fill: boolean;
      readonly tone?: Tone;
    }
  | {
      readonly kind: 'words';
      /** Where the middle of its letters stands, by `anchor`. */
      readonly x: number;
      readonly y: number;
      /** Of the letters, mm. */
      readonly size: number;
      readonly text: string;
      readonly anchor: 'start' | 'middle' | 'end';
      readonly bold?: boolean;
      /** Turned clockwise about its own place, degrees. */
      readonly turn?: number;
      /** Made smaller until it takes no more than this, mm. */
      readonly room?: number;
      readonly tone?: Tone;
    };

export type Tone = 'ink' | 'soft' | 'intake' | 'exhaust';

/** A place on paper where only a part of a drawing is seen. */
export interface Window {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Marks that are put down together, their origin at a place of the sheet. */
export interface Part {
  readonly at: readonly [x: number, y: number];
  readonly marks: readonly Mark[];
  /** In sheet millimetres; left out: all of it is seen. */
  readonly window?: Window;
}

/** One side of paper. */
export interface Sheet {
  /** True millimetres of the paper as this printer prints it. */
  readonly width: number;
  readonly height: number;
  /** How much larger than drawn it comes out, along its width and along its height. */
  readonly factor: { readonly x: number; readonly y: number };
  readonly parts: readonly Part[];
}

export const PAPER_SIZES = {
  a4: { name: 'A4', width: 210, height: 297 },
  letter: { name: 'Letter', width: 215.9, height: 279.4 },
  a3: { name: 'A3', width: 297, height: 420 },
} as const;
export type PaperName = keyof typeof PAPER_SIZES;
export const PAPER_NAMES = Object.keys(PAPER_SIZES) as [PaperName, ...PaperName[]];

/** Most printers leave so much of the edge blank, mm. From memory. */
export const EDGE = 8;

export const line = (
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  width = 0.2,
  more: { tone?: Tone } = {},
): Mark => ({
  kind: 'line',
  x1,
  y1,
  x2,
  y2,
  width,
  ...more,
});

/** A place at a distance from the middle, its angle clockwise from the top. Degrees. */
export function onCircle(r: number, angle: number): readonly [x: number, y: number] {
  const turn = (angle * Math.PI) / 180;
  return [r * Math.sin(turn), -r * Math.cos(turn)];
}

/** A cross to pierce or to lay over another: both lines meet at its place. */
export const cross = (x: number, y: number, arm: number, width = 0.15): Mark[] => [
  line(x - arm, y, x + arm, y, width),
  line(x, y - arm, x, y + arm, width),
];
