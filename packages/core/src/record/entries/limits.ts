/**
 * What an entry may hold at most and at least: entries are checked by it, and forms say it while a builder types. One list, so that no form refuses
 * what a file may bring, nor lets through what is refused afterwards. Lengths mm, angles degrees; [from, to] where both ends matter. Wide on
 * purpose: beyond them somebody has mistaken the unit. From memory.
 */

/** Characters. */
export const NAME_LENGTH = 80;
export const SENTENCE_LENGTH = 200;

export const MOST_CYLINDERS = 24;
/** No cam lifts a valve, or an indicator, as much. */
export const MOST_LIFT = 40;
/** Valve travel for each 1 of lobe. */
export const ROCKER_RATIO = [0.5, 3] as const;

export const ENGINE = {
  stroke: 1000,
  rod: 2000,
  bore: 1000,
  /** To either side. */
  pinOffset: 20,
  compression: [2, 30],
  /** cm³ */
  chamber: 5000,
} as const;

export const INSTRUMENTS = { wheelDiameter: 1000, graduation: [0.1, 10], pointerGap: 100, resolution: 1 } as const;

export const CARD = {
  height: 20,
  duration: [60, 420],
  event: [-120, 200],
  centreline: [1, 179],
  lash: 5,
  lobeSeparation: [60, 150],
  groundInAdvance: [-20, 20],
} as const;

export const TARGET = { advance: [-20, 20], limit: [0.1, 10] } as const;

export const LASH = { gap: 5, noGo: 1, pitch: 3, turns: 6 } as const;

export const ROCKERS = {
  arm: 200,
  tip: 30,
  step: 20,
  /** Of a pushrod, or of shims under the pivot. */
  length: 600,
  pattern: 30,
  /** Of the pattern's middle from that of the tip. */
  aside: 15,
  preload: 10,
  travel: 20,
  engagement: 60,
  stud: 30,
} as const;

export const MOST_END_PLAY = 10;
export const CLEARANCE = { minimum: 20, gap: 40, angle: [0, 60], at: [-60, 60] } as const;
