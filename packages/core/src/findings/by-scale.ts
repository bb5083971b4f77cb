import { NORMAL_95 } from '../statistics/normal';
import { type PhaserHardware, correctAngle } from '../timing-set/electronic-angle';
import { asCrank } from '../timing-set/kinds/kind';
import { type Cam, camsOf, turnedBy } from '../record/cams-of';
import type { EntryOf, FittedHardware } from '../record/entry';
import type { Ground, Trial } from '../record/parts';
import { type Basis, type Verdict, judge } from '../verdict/verdict';
import type { CamFinding } from './derive-verdict';

type Scale = NonNullable<Basis['scale']>;

/** What one reading in the maker's own scale may miss, crank degrees (1 sigma). From memory. */
const SCALE_READS = 0.15;

/**
 * Cams whose place is told by their phaser alone: its angle in the maker's own scale against the manual's nominal and what that allows. The crank stands at its
 * locking pin, and the manual's figures hold with the pin in: no wheel is needed, and no card.
 * @param drive as it was last fitted, up to this trial.
 * @returns cams of the trial of which an angle with its tolerance was read, in the order of the engine's cams.
 */
export function judgeByScale(
  trial: Trial,
  drive: EntryOf<'drive.fitted'> | null,
  build: Ground,
  bank: 1 | 2,
): CamFinding[] {
  const all = camsOf(build);
  const banked = build.description.body.engine.secondBank !== undefined;
  return all.flatMap((cam): CamFinding[] => {
    if (cam.bank !== bank) return [];
    const read = trial.phasers.findLast(({ body }) => {
      const part = fittedOf(drive, body.part);
      return body.tolerance !== undefined && part !== null && turnedBy(part, all).some(({ key }) => key === cam.key);
    })?.body;
    const hardware = read && fittedOf(drive, read.part)?.hardware;
    if (read?.tolerance === undefined || hardware?.kind !== 'phaser') return [];
    const { nominal, tolerance, shows } = read;
    const delta = -advanceOf(hardware, nominal, shows);
    return [
      {
        cam: cam.cam,
        bank,
        standard: SCALE_READS,
        budget: [{ from: 'the maker’s instrument', standard: SCALE_READS }],
        chance: 1,
        rule: null,
        verdict: verdictOf(cam, banked ? bank : null, delta, asCrank(tolerance, hardware.stamped), {
          nominal,
          tolerance,
          shows,
        }),
      },
    ];
  });
}

/** The correction that brings the scale to its nominal, crank degrees of advance. */
const advanceOf = (hardware: PhaserHardware, nominal: number, shows: number): number =>
  correctAngle(hardware, [{ nominal, shows, setTo: null }])?.advance ?? 0;

/** A part of the drive; null where it is not on it. */
const fittedOf = (drive: EntryOf<'drive.fitted'> | null, part: string): FittedHardware | null =>
  drive?.body.parts.find((each) => each.part === part) ?? null;

/** Nothing but the angle speaks: no reading is weighed, and nothing that went wrong can show. */
function verdictOf(cam: Cam, bank: 1 | 2 | null, delta: number, limit: number, scale: Scale): Verdict {
  return judge({
    cam: cam.cam,
    bank,
    delta,
    expanded: NORMAL_95 * SCALE_READS,
    spread: 0,
    limit,
    zeroProved: true,
    basis: { rule: null, count: 1, against: null, contradicted: false, scale },
    chance: 1,
    named: [],
    doubted: [],
    closingDue: false,
    first: [],
    oneSided: [],
    worst: null,
    next: null,
    ahead: null,
    beside: [],
    moved: null,
    converged: true,
  });
}
