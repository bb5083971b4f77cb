import { ADVERTISED_HEIGHT, VALVES, type Valve, closesAt, noseAt, opensAt } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import type { CompletedLobe } from '../cam/completed-lobe';
import { type Lobe, flanksAt, wrap720 } from '../cam/lobe';
import type { TraceCurve } from '../cam/trace';
import { type Outcome, problem } from '../problem';
import type { Build } from '../record/fold';
import type { Seat } from '../valve-train/resting';
import type { TrialFinding } from './derive-trial';
import { standingLobe } from './standing-lobe';
import { statedRatio } from './stated-ratio';
import { likenessNose, wholeTrace } from './whole-trace';

/** What the seat events of a lobe were taken from. */
export type SeatSource = 'trace' | 'card' | 'likeness';

export interface SeatFinding extends Seat {
  readonly from: SeatSource;
  /** Is the cam taken to stand where its card has it, because nobody measured it? */
  readonly unplaced: boolean;
  /** The lobe as it stands, lift at the lobe; null where no lift of it is known. */
  readonly lobe: Lobe | null;
  /** Valve travel for each 1 of lobe; null where it is not known. */
  readonly ratio: number | null;
}

export type Seats = Readonly<Record<Valve, SeatFinding>>;

/** Lift at which a trace shows that its lobe has left the base circle, mm: less is lost in its noise. From memory. */
const LEAVES_BASE = 0.05;
/** A lash of nothing is taken up where the lobe itself begins: the lift at which that can be told, mm. From memory. */
const LEAST_TAKEN_UP = 0.1;
/** A printed line is one of the seat below this height at the lobe, mm: solid lifters are advertised as high as 0.020 in. Common practice, no source. */
const SEAT_LINE = 0.6;
/** How far a cam on its marks may stand off its card, and a likeness off its lobe, at the seat: crank degrees. From memory. */
const UNPLACED = 5;
const LIKENESS = 10;

/**
 * Where each lobe lifts its valve and lets it down again, as the cam stands now: from a trace, else from the card's seat figures, else
 * from a lobe like its other figures.
 * @param lash at the valves, mm; the ramp begins where the lobe has taken it up.
 * @returns what would be enough where nothing tells.
 */
export function seatEvents(
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  lash: Readonly<Record<Valve, number>>,
): Outcome<{ readonly seats: Seats }> {
  const found = VALVES.map((valve) => {
    const seat = seatOf(build, trials, card, valve, lash[valve]);
    return [valve, seat && ofBothBanks(seat, build, trials, card, valve)] as const;
  });
  const missing = found.filter(([, seat]) => seat === null).map(([valve]) => valve);
  if (missing.length > 0)
    return problem(
      missing.length === 1
        ? `Where the ${missing[0] ?? ''} leaves its seat is not known.`
        : 'Where the valves leave their seats is not known.',
      'Enough would be: the card’s advertised duration with its centreline, its lift with any duration, or a trace of the lobe.',
    );
  const seats = Object.fromEntries(found) as unknown as Seats;
  return { ok: true, seats };
}

function seatOf(
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
  lash: number,
): SeatFinding | null {
  const printed = card[valve];
  const standing = standingLobe(build, trials, trials.length - 1, card, valve)?.lobe ?? null;
  const lobe = standing ?? (printed.placed || hasCentre(printed) ? printed.curve : null);
  const ratio = statedRatio(build, card, valve);
  const common = { lobe, ratio, unplaced: standing === null };
  const place = standing === null ? UNPLACED : 0;
  const traced = wholeTrace(trials, valve, false);
  if (traced && standing) {
    const feet = feetOf(traced.curve, likenessNose(traced, build, trials, card, valve, standing));
    if (feet)
      return {
        ...common,
        opens: standing.nose - feet.before,
        closes: standing.nose + feet.after,
        slack: 0,
        from: 'trace',
      };
  }
  const takenUp = Math.max(LEAST_TAKEN_UP, lash / (ratio ?? 1));
  const line = seatLine(printed, valve, lash, takenUp, lobe);
  if (line) {
    const moved = standing && printed.curve ? standing.nose - printed.curve.nose : 0;
    return { ...common, opens: line.opens + moved, closes: line.closes + moved, slack: place, from: 'card' };
  }
  const flanks = lobe && flanksAt(lobe, takenUp);
  return (
    flanks && { ...common, opens: flanks.opening, closes: flanks.closing, slack: place + LIKENESS, from: 'likeness' }
  );
}

/**
 * Where a second bank has cams of its own, a valve counts as lifted wherever that of either bank is: one list of stops serves all.
 * A second bank that nobody measured may stand off by what a cam on its marks may.
 */
function ofBothBanks(
  seat: SeatFinding,
  build: Build,
  trials: readonly TrialFinding[],
  card: CompletedCard,
  valve: Valve,
): SeatFinding {
  if (build.description.body.engine.secondBank === undefined || seat.unplaced || !seat.lobe) return seat;
  const other = standingLobe(build, trials, trials.length - 1, card, valve, 2)?.lobe;
  if (!other) return { ...seat, slack: seat.slack + UNPLACED, unplaced: true };
  const ahead = wrap720(other.nose - seat.lobe.nose);
  return { ...seat, opens: seat.opens + Math.min(0, ahead), closes: seat.closes + Math.max(0, ahead) };
}

/** Does the card give events, from which the place of the lobe follows without a centreline? */
const hasCentre = ({ lines }: CompletedLobe): boolean =>
  lines.some(({ opens, closes }) => opens !== undefined && closes !== undefined);

/** How far before and after its nose a traced lobe begins and ends, crank degrees. */
function feetOf(curve: TraceCurve, nose: number | null): { readonly before: number; readonly after: number } | null {
  const feet = nose === null ? null : curve.flanks(LEAVES_BASE);
  return nose === null || !feet ? null : { before: nose - feet.opening.angle, after: feet.closing.angle - nose };
}

/** The card's own figures at the seat, or its duration there about its centre; carried down to where the lash is taken up. Cycle angles. */
function seatLine(
  printed: CompletedLobe,
  valve: Valve,
  lash: number,
  takenUp: number,
  lobe: Lobe | null,
): { readonly opens: number; readonly closes: number } | null {
  const heightAtLobe = ({ height, at }: CompletedLobe['lines'][number]): number => {
    const given = height ?? ADVERTISED_HEIGHT;
    return at === 'lobe' ? given : (given + lash) / (printed.ratio ?? 1);
  };
  const [line] = printed.lines
    .map((each) => ({ ...each, height: heightAtLobe(each) }))
    .filter(({ height }) => height <= SEAT_LINE)
    .sort((a, b) => a.height - b.height);
  if (!line) return null;
  const wider = lobe ? widening(lobe, line.height, takenUp) : 0;
  if (line.opens !== undefined && line.closes !== undefined)
    return { opens: opensAt(valve, line.opens) - wider, closes: closesAt(valve, line.closes) + wider };
  const centre = printed.centreline === null ? lobe?.nose : noseAt(valve, printed.centreline);
  if (line.duration === undefined || centre === undefined) return null;
  return { opens: centre - line.duration / 2 - wider, closes: centre + line.duration / 2 + wider };
}

/** How much wider each flank is at a lower lift; never narrower: what the card prints is open there. */
function widening(lobe: Lobe, printed: number, takenUp: number): number {
  const [high, low] = [flanksAt(lobe, printed), flanksAt(lobe, takenUp)];
  return high && low ? Math.max(0, (low.closing - low.opening - (high.closing - high.opening)) / 2) : 0;
}
