import { VALVES } from '../cam/card';
import { explainer } from './explained';
import { FAULTS, FAULT_NAMES, type FaultName } from './faults';
import type { Evidence, PrintedAngle } from './observations';
import { scoreOf, weigh } from './weigh';

/** A fault must explain the readings better than health by this much before it is spoken of: in χ², what it could have explained anyhow taken off. */
export const ACCUSES = 7;
/** From here on it may have happened, and what would tell is asked for before the cam is moved, or left; nobody is accused. */
export const DOUBTED = 3;
/** Faults that are nearer than this to the best are not told apart by the readings. */
export const TOLD_APART = 4;
/** Nor is one that acts only roughly as its formula has it, and explains all but this share of what the best does. From memory. */
export const NEARLY_ALL = 0.05;
/** More explanations than this help nobody; of what only may have happened, fewer. */
const MOST_NAMED = 4;
const MOST_DOUBTED = 2;
/** A drive puts a cam 2 to 8 degrees out; nearly never more. Standard deviation, crank degrees. Common practice, no source. */
export const BELIEVED = 4;

export interface Suspect {
  readonly fault: FaultName;
  /** By how much it explains the readings better than health. */
  readonly better: number;
  /** How many ways it has of doing so: chance has as many to hit on one. */
  readonly ways: number;
  /** Entries of the readings that it speaks of. */
  readonly concerns: readonly string[];
  /** The figure of the card that it speaks of, if any. */
  readonly printed: PrintedAngle | null;
  /** How far it would have moved them, where that is not known beforehand: crank degrees, or mm. */
  readonly amount: number | null;
}

export interface Diagnosis {
  /** χ² of the readings if nothing is wrong. */
  readonly health: number;
  /** The best explanation of each fault that explains better, best first. */
  readonly ranked: readonly Suspect[];
  /** Those that the readings cannot tell apart from the best, itself first; empty where nothing is spoken of. */
  readonly named: readonly Suspect[];
  /** Those that may well have happened where nothing is spoken of, the same way; empty where nothing hints at anything. */
  readonly doubted: readonly Suspect[];
}

const valvesOf = ({ observations }: Evidence): string =>
  VALVES.filter((valve) => observations.some((each) => each.valve === valve)).join();

/**
 * What probably went wrong: each usual fault makes the readings in its own way, and is measured by how much more probable it makes them than health
 * does. An explanation with something free in it has to explain the more, and so has one of many of its kind before it is spoken of. On healthy readings it stays silent.
 * Source: χ² and its marginal likelihood, each unknown of a fault held by what is believed of it beforehand.
 */
export function diagnose(evidence: Evidence): Diagnosis {
  const options = { grouped: false, believable: BELIEVED, once: true };
  const healthy = weigh(evidence, options);
  const health = healthy?.solved.chiSquared ?? 0;
  // No explanation gains more than all there is to gain.
  if (!healthy || health < DOUBTED) return { health, ranked: [], named: [], doubted: [] };
  const explain = explainer(healthy);
  const score = scoreOf(healthy);
  const step = Math.max(0, ...evidence.observations.map((each) => (each.kind === 'peak-lift' ? 0 : each.step)));
  // What the card says by itself is taken off on both sides: only what the readings add to it is compared. Whoever exchanges two valves may leave one of them
  // unread, and with it goes all that the card prints of it.
  const cardAlone = (of: Evidence): number => {
    const alone = weigh(of, { ...options, blind: true });
    return alone ? scoreOf(alone) : 0;
  };
  const sound = score - cardAlone(evidence);
  const seen = valvesOf(evidence);
  const ranked = FAULT_NAMES.flatMap((fault): Suspect[] => {
    let best: Suspect | null = null;
    const hypotheses = FAULTS[fault].hypotheses(evidence);
    for (const { concerns, makes } of hypotheses) {
      let better: number;
      let amount: number | null = null;
      if ('moves' in makes) {
        const explained = explain(makes);
        if (makes.sign && explained.amount * makes.sign <= 0) continue;
        // Nobody is accused of less than the step that he reads to.
        if (makes.turns && Math.abs(explained.amount) < step) continue;
        better = -explained.score;
        if (makes.standard > 0) amount = explained.amount;
      } else {
        const { loose = false } = makes;
        const other = weigh(makes.evidence, { ...options, loose });
        if (!other) continue;
        // Another cam owes the card nothing.
        if (loose) better = sound - scoreOf(other);
        else if (valvesOf(makes.evidence) === seen) better = score - scoreOf(other);
        else better = sound - (scoreOf(other) - cardAlone(makes.evidence));
      }
      const printed = 'moves' in makes ? (makes.prints ?? null) : null;
      if (better > (best?.better ?? 0)) best = { fault, better, ways: hypotheses.length, concerns, amount, printed };
    }
    return best ? [best] : [];
  }).sort((a, b) => b.better - a.better);
  const [first] = ranked;
  const sure = first ? first.better - 2 * Math.log(first.ways) : 0;
  if (!first || sure < DOUBTED) return { health, ranked, named: [], doubted: [] };
  const level = levelWith(first, ranked, evidence);
  return sure < ACCUSES
    ? { health, ranked, named: [], doubted: level.slice(0, MOST_DOUBTED) }
    : { health, ranked, named: level, doubted: [] };
}

/** Those that the readings cannot tell from the best, the likeliest first. */
function levelWith(first: Suspect, ranked: readonly Suspect[], evidence: Evidence): readonly Suspect[] {
  const apart = ({ fault }: Suspect): number =>
    FAULTS[fault].rough ? Math.max(TOLD_APART, NEARLY_ALL * first.better) : TOLD_APART;
  const level = ranked.filter((each) => each.better > first.better - apart(each));
  const isVague = ({ fault }: Suspect): boolean => FAULTS[fault].vague ?? false;
  // What the readings hardly tell apart is told apart, and put in order, by how often it happens.
  const usual = ({ better, fault }: Suspect): number => better - (FAULTS[fault].rare?.(evidence) ?? 0);
  const definite = ranked.filter((each) => !isVague(each)).sort((a, b) => usual(b) - usual(a));
  const [likely] = definite;
  const named =
    likely && level.some((each) => !isVague(each))
      ? definite.filter((each) => usual(each) > usual(likely) - apart(each))
      : [];
  return [...named, ...level.filter(isVague)].slice(0, MOST_NAMED);
}
