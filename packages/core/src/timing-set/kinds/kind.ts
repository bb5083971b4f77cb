import { z } from 'zod';

/** Crank or cam degrees: what the maker has stamped. */
export const stampedIn = z.enum(['crank', 'cam'], {
  error: 'say whether the label counts crank or cam degrees: one is twice the other',
});
export type StampedIn = z.infer<typeof stampedIn>;

/** `asCrank(1.5, 'cam')` is 3. */
export const asCrank = (degrees: number, stamped: StampedIn): number => (stamped === 'cam' ? 2 * degrees : degrees);
/** `fromCrank(3, 'cam')` is 1.5. */
export const fromCrank = (degrees: number, stamped: StampedIn): number => (stamped === 'cam' ? degrees / 2 : degrees);

/** A place where the hardware can be put. */
export interface Position {
  /** What names it in the logbook: "+4". */
  readonly mark: string;
  /** How it is called at the engine: "the +4 mark". */
  readonly label: string;
  /** How far it sets the cam ahead by its label, crank degrees. */
  readonly advance: number;
}

/** What the hardware can be put to: marks, or anywhere in a range of its own scale. */
export type Reach =
  | { readonly kind: 'marks'; readonly positions: readonly Position[] }
  | {
      readonly kind: 'range';
      /** In its own scale. */
      readonly from: number;
      readonly to: number;
      /** Crank degrees of advance for each 1 of the scale: negative where the scale grows late. */
      readonly perUnit: number;
      /** Has it a scale to be set by? Else the indicator says where it is. */
      readonly scale: boolean;
    };

/** What is taken for granted of a kind before any of it was measured: standard deviations. All from memory. */
export interface Trust {
  /** Of what it gives for each degree of its label. */
  readonly response: number;
  /** Of each mark, crank degrees. */
  readonly mark: number;
}

/** What its maker stamps or says of it, as it is asked in this order, and how it is typed. */
export interface Question<Name extends string = string> {
  readonly name: Name;
  readonly typed: 'degrees' | 'count' | 'length' | 'degrees-list' | 'length-list' | 'stamped' | 'sense' | 'scale';
  readonly label: string;
  readonly hint?: string;
}

/** What several kinds ask in the same words. */
export const STAMPED = { name: 'stamped', typed: 'stamped', label: 'Its label counts' } as const;

/**
 * A kind of hardware that moves a cam. One file each, two lines in `hardware.ts`.
 * `work`: what it takes to put it elsewhere. `wheelOff`: must the degree wheel or the pointer come off for it?
 */
export interface HardwareKind<S extends z.ZodObject> {
  readonly name: string;
  readonly about: string;
  readonly body: S;
  readonly asks: readonly Question<Extract<keyof S['shape'], string>>[];
  readonly work: 'adjust' | 'front-apart';
  readonly wheelOff: boolean;
  readonly trust: Trust;
  /** What cannot be, in a builder's words; null where all is well. Asked by the schema. */
  readonly trouble: (hardware: z.infer<S>) => Trouble | null;
  readonly reach: (hardware: z.infer<S>) => Reach;
  /** What the hands do to put it from one place to another, in order, between loosening and locking. */
  readonly put: (hardware: z.infer<S>, from: number, to: number, labels: PutLabels) => readonly string[];
}

export interface PutLabels {
  readonly from: string;
  readonly to: string;
  /** "advance it" or "retard it", with the way to turn the cam. */
  readonly way: string;
  /** Which way the cam, or the crank, is that much further on: "the way the cam runs (clockwise, seen from the wheel)", or against it. */
  readonly cam: (by: number) => string;
  readonly crank: (by: number) => string;
}

/** Which way round an offset piece goes in, by itself and whatever was there before: the moves of a set are counted from straight. */
export const sideWords = (advance: number, cam: PutLabels['cam']): string =>
  advance === 0 ? '' : `, turned so that the cam sits further ${cam(advance)} than with a straight one`;

export interface Trouble {
  readonly field: string;
  readonly message: string;
}

export const kindOf = <S extends z.ZodObject>(kind: HardwareKind<S>): HardwareKind<S> => kind;

/** "+4", "−2½" is written −2.5: as a maker stamps it. `signed(0)` is "0". */
export const signed = (value: number): string => {
  const plain = String(Math.round(Math.abs(value) * 1000) / 1000);
  return plain === '0' ? '0' : `${value > 0 ? '+' : '−'}${plain}`;
};

const FURTHEST = 90;
/** Degrees as stamped. */
export const stampedDegrees = (what: string): z.ZodNumber => {
  const error = `${what} must lie between −${FURTHEST} and ${FURTHEST} degrees`;
  return z.number({ error }).min(-FURTHEST, { error }).max(FURTHEST, { error });
};
export const partLength = (what: string, most: number): z.ZodNumber =>
  z
    .number({ error: `${what} must be a length in millimetres` })
    .positive({ error: `${what} must be more than 0` })
    .max(most, { error: `${what} must be at most ${most} mm` })
    .describe('Millimetres.');
export const toothCount = (what: string): z.ZodInt =>
  z
    .int({ error: `${what} must be a whole number` })
    .min(8, { error: `${what}: at least 8` })
    .max(400, { error: `${what}: at most 400` });

/** No ordinary drive has to be moved further than this, crank degrees. Common practice, no source. */
export const FURTHEST_MOVE = 20;
