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

/** Cycle angle of an event as printed. `opensAt('intake', 21)` is −21; `opensAt('exhaust', 65.5)` is −245.5. */
export const opensAt = (valve: Valve, printed: number): number => (valve === 'intake' ? -printed : -180 - printed);
/** `closesAt('intake', 55)` is 235; `closesAt('exhaust', 23.5)` is 23.5. */
export const closesAt = (valve: Valve, printed: number): number => (valve === 'intake' ? 180 + printed : printed);
/** The same back: an event as a card prints it from its cycle angle. */
export const opensAsPrinted = (valve: Valve, at: number): number => (valve === 'intake' ? -at : -180 - at);
export const closesAsPrinted = (valve: Valve, at: number): number => (valve === 'intake' ? at - 180 : at);

/** Cycle angle of a centreline as printed, and back: the exhaust's is counted before TDC. `noseAt('exhaust', 111)` is −111. */
export const noseAt = (valve: Valve, centreline: number): number => (valve === 'intake' ? centreline : -centreline);

/** Half-way between the events, as a centreline is printed. `eventCentre('exhaust', 65.5, 23.5)` is 111. */
export const eventCentre = (valve: Valve, opens: number, closes: number): number =>
  valve === 'intake' ? (180 + closes - opens) / 2 : (180 + opens - closes) / 2;

/** Crank degrees that a valve is open. `durationOf(14, 47)` is 241. */
export const durationOf = (opens: number, closes: number): number => opens + 180 + closes;

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
