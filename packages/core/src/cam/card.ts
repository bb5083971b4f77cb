import { type CycleDeg, type PrintedDeg, bareDeg } from '../units/angle';
/** Intake or exhaust. */
export type Valve = 'intake' | 'exhaust';
export const VALVES = ['intake', 'exhaust'] as const;

/** What a card prints at one checking height. All degrees are crank degrees, as printed: negative where it says so. */
export interface TimingLine {
  /** Checking height, mm; null where the card does not say (an advertised duration). */
  readonly height: number | null;
  /** Is the height that of the lobe (or its lifter), or of the valve? */
  readonly at: 'lobe' | 'valve';
  readonly duration?: number | undefined;
  /** Intake: °BTDC. Exhaust: °BBDC. */
  readonly opens?: number | undefined;
  /** Intake: °ABDC. Exhaust: °ATDC. */
  readonly closes?: number | undefined;
}

/** Lift at overlap TDC, mm at the lobe, when the cam stands at a centreline. */
export interface LiftAtTdc {
  readonly centreline: number;
  readonly lift: number;
}

/** What the card prints for one valve. Each figure may be missing. Lengths mm. */
export interface LobeCard {
  /** Intake: °ATDC. Exhaust: °BTDC. */
  readonly centreline?: number | undefined;
  readonly lobeLift?: number | undefined;
  readonly valveLift?: number | undefined;
  /** Rocker ratio that the valve lift is printed for. */
  readonly ratio?: number | undefined;
  readonly lashHot?: number | undefined;
  readonly lashCold?: number | undefined;
  readonly timing?: readonly TimingLine[] | undefined;
  readonly liftAtTdc?: readonly LiftAtTdc[] | undefined;
}

/** A camshaft's card. */
export interface CamCard {
  readonly name?: string | undefined;
  readonly intake?: LobeCard | undefined;
  readonly exhaust?: LobeCard | undefined;
  /** Cam degrees between the centrelines. */
  readonly lobeSeparation?: number | undefined;
  /** LSA − ICL: how far the cam is ground ahead, degrees as printed. */
  readonly groundInAdvance?: number | undefined;
  /** Once round the flywheel, mm, where its events are given in inches of the rim. */
  readonly rim?: number | undefined;
  /** What its centrelines are the middle of: an equal drop near the nose, or the events. Left out where the card does not say. */
  readonly centrelineMeans?: 'nose' | 'events' | undefined;
}

/** Advertised durations are usually taken at 0.006 in; used for the picture where the card does not say. From memory. */
export const ADVERTISED_HEIGHT = 0.1524;

/** Cycle angle of an event as printed. `opensAt('intake', 17)` is −17; `opensAt('exhaust', 62)` is −242. */
export const opensAt = (valve: Valve, printed: PrintedDeg): CycleDeg =>
  valve === 'intake' ? -printed : -180 - printed;
/** `closesAt('intake', 51)` is 231; `closesAt('exhaust', 20)` is 20. */
export const closesAt = (valve: Valve, printed: PrintedDeg): CycleDeg =>
  valve === 'intake' ? 180 + printed : bareDeg(printed);
/** The same back: an event as a card prints it from its cycle angle. */
export const opensAsPrinted = (valve: Valve, at: CycleDeg): PrintedDeg => (valve === 'intake' ? -at : -180 - at);
export const closesAsPrinted = (valve: Valve, at: CycleDeg): PrintedDeg =>
  valve === 'intake' ? at - 180 : bareDeg(at);

/** Cycle angle of a centreline as printed: the exhaust's is counted before TDC. `noseAt('exhaust', 112)` is −112. */
export const noseAt = (valve: Valve, centreline: PrintedDeg): CycleDeg =>
  valve === 'intake' ? bareDeg(centreline) : -centreline;
/** The same back. `centrelineAsPrinted('exhaust', -112)` is 112. */
export const centrelineAsPrinted = (valve: Valve, nose: CycleDeg): PrintedDeg =>
  valve === 'intake' ? bareDeg(nose) : -nose;

/** Half-way between the events, as a centreline is printed. `eventCentre('exhaust', 62, 20)` is 111. */
export const eventCentre = (valve: Valve, opens: PrintedDeg, closes: PrintedDeg): PrintedDeg =>
  valve === 'intake' ? (180 + closes - opens) / 2 : (180 + opens - closes) / 2;

/** Crank degrees that a valve is open. `durationOf(17, 51)` is 248. */
export const durationOf = (opens: PrintedDeg, closes: PrintedDeg): number => opens + 180 + closes;

/** What the words of a figure say after it. `SIDE_WORDS.intake.opens` is "BTDC". */
export const SIDE_WORDS = {
  intake: { opens: 'BTDC', closes: 'ABDC', centreline: 'ATDC' },
  exhaust: { opens: 'BBDC', closes: 'ATDC', centreline: 'BTDC' },
} as const;

/** Short names of the events: IVO, IVC, EVO, EVC; and of the centrelines. */
export const EVENT_NAMES = {
  intake: { opens: 'IVO', closes: 'IVC', centreline: 'ICL' },
  exhaust: { opens: 'EVO', closes: 'EVC', centreline: 'ECL' },
} as const;
