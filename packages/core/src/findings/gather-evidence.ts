import { VALVES, type Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { FELT_LATE } from '../measure/read-uncertainty';
import { READ_METHODS, type ReadMethodName, readMethod } from '../measure/read-methods';
import { factsOfCard } from '../verdict/card-facts';
import type { CardFact, Evidence, Observation } from '../verdict/observations';
import type { Ground, Trial } from '../record/parts';
import { remember } from '../record/remember';
import type { RoundFinding } from './readings/read-rounds';
import type { TraceFinding } from './readings/read-traces';
import { withoutWheel } from './views/lift-at-tdc';
import { type ViewContext, viewKey } from './views/view';
import { UNPROVED_TDC, offsetOf, resolutionOf, ringsOf } from './readings/zero-passes';

/** A trace of many points stands for the pairs that it could have been read as: at this drop, share of its peak, and at the heights that the card prints. */
const TRACE_DROP = 0.15;

type Facts = ReturnType<typeof factsOfCard>;

/** A card is completed once, and says the same until it is corrected or the engine's ratio is. */
const sameFacts = remember<CompletedCard, Facts>();

function factsOf(build: Ground, card: CompletedCard): Facts {
  const ratio = build.description.body.engine.rockerRatio;
  return sameFacts(card, [ratio], () => factsOfCard(build.card?.body ?? {}, card, ratio ?? null));
}

/**
 * The raw readings of a trial, each once, with all that is known of how they err.
 * @param rounds of one bank of it.
 * @param closed the closing check has shown that nothing moved.
 * @param odd takes rounds too whose readings do not make sense together: they show what went wrong.
 */
export function gatherEvidence(
  trial: Trial,
  rounds: readonly RoundFinding[],
  context: ViewContext,
  { odd, closed }: { readonly odd: boolean; readonly closed: boolean },
): Evidence {
  const { build, card, ahead, wanted, traces } = context;
  const { facts, lobes } = factsOf(build, card);
  const zeros = new Map<string, number>();
  const observations: Observation[] = [];
  const standing = rounds.filter(
    (round) =>
      (round.problem === null || (odd && round.holds)) &&
      round.lacking === 0 &&
      READ_METHODS[round.method].reads !== 'curve',
  );
  // What was read without a wheel leans on no zero, and slack places nothing.
  const onProved = standing.some(
    (round) => round.zeroProved && READ_METHODS[round.method].reads !== 'slack' && !leansOnNone(round),
  );
  const counted = onProved ? standing.filter((round) => round.zeroProved || leansOnNone(round)) : standing;
  // Heights are few, and turning a number into text costs more than all the rest.
  const views = new Map<string, Map<number, string>>();
  const keyOf = (method: ReadMethodName, valve: Valve, height: number, atValve: boolean): string => {
    const kind = method + valve + (atValve ? 'v' : '');
    const known = views.get(kind) ?? new Map<number, string>();
    views.set(kind, known);
    const key = known.get(height) ?? viewKey(method, valve, height, atValve);
    known.set(height, key);
    return key;
  };
  for (const round of counted) addRound(round, context, zeros, observations, keyOf);
  const placed = traces.filter((trace) => trace.placed && trace.curve);
  const proved = placed.filter((trace) => trace.zeroProved);
  for (const trace of proved.length > 0 || onProved ? proved : placed) addTrace(trace, facts, zeros, observations);
  sortByEntry(observations);
  const aim = build.target?.body;
  const own = {
    intake: aim?.target.kind === 'centreline' ? wanted.intake : null,
    exhaust: aim?.exhaust?.kind === 'centreline' ? wanted.exhaust : null,
  };
  const { engine } = build.description.body;
  return {
    cams: engine.cams ?? 'single',
    observations,
    card: facts,
    leanUnknown: VALVES.filter((valve) => card.contradictions.some(({ lean }) => lean === valve)),
    lobes,
    zeros,
    resolution: resolutionOf(build.description.body),
    lifter: build.asItStands?.body.lifter ?? null,
    quadrants: readsQuadrants(trial, counted, build),
    settled: closed ? observations.length : settledOf(build, observations, counted),
    ahead,
    centreline: own,
  };
}

/** Was it read on a ring whose numbers come four times? Only such a ring can be counted from the wrong one of its marks. */
function readsQuadrants(trial: Trial, rounds: readonly RoundFinding[], { description }: Ground): boolean {
  const rings = ringsOf(description.body);
  if (!rings.some(({ ring }) => ring === '0-90')) return false;
  // Most wheels have one ring: then nothing has to be looked through.
  if (rings.length === 1) return true;
  const these = new Set(rounds.map(({ id }) => id));
  return trial.rounds.some(
    ({ id, readings }) => these.has(id) && readings.some(({ body }) => body.wheel?.ring === '0-90'),
  );
}

const leansOnNone = ({ readings }: RoundFinding): boolean => readings.every(({ at }) => at === null);

/** What TDC's error is told apart by: a setting of the wheel, anew where its zero was corrected. */
function zeroKey(setting: string | null, zero: RoundFinding['zero']): string {
  if (setting === null) return 'without a wheel';
  return zero?.rebasedBy ? `${setting} rebased` : setting;
}

function addRound(
  round: RoundFinding,
  context: ViewContext,
  zeros: Map<string, number>,
  to: Observation[],
  keyOf: typeof viewKey,
): void {
  const { valve, method, sitsOn, zero } = round;
  const { isFelt = false } = readMethod(method);
  const atValve = sitsOn === 'valve' || isFelt;
  const offset = offsetOf(zero);
  const setting = round.readings.find((reading) => reading.setting !== null)?.setting ?? null;
  const own = zeroKey(setting, zero);
  const key = isFelt ? `${own} by feel` : own;
  const step = zero?.step ?? 0;
  const { reads, from } = READ_METHODS[method];
  const view = reads === 'flanks' ? keyOf(method, valve, round.height ?? 0, atValve) : '';
  for (const { entry, flank, at, figure, slot } of round.readings) {
    if (slot === null) continue;
    // Written out: copies by spreading are many times slower, and this is done for every reading at every key.
    const { id } = round;
    if (reads === 'peak-lift') {
      const lift = `${atValve ? 'valve' : 'lobe'}-lift ${valve}`;
      to.push({ kind: 'peak-lift', entry, round: id, view: lift, valve, atValve, method: null, lift: figure });
    } else if (reads === 'tdc-lift') {
      if (!zeros.has(key)) zeros.set(key, setting === null ? withoutWheel(context) : (zero?.standard ?? UNPROVED_TDC));
      to.push({
        kind: 'tdc-lift',
        entry,
        round: id,
        view: `lift-at-tdc ${valve}`,
        valve,
        atValve,
        method,
        lift: figure,
        past: round.pastTdc ?? 0,
        zero: key,
        step: at === null ? 0 : step,
      });
    } else if (at !== null && flank !== null && reads === 'flanks') {
      const tdc = zero?.standard ?? UNPROVED_TDC;
      if (!zeros.has(key)) zeros.set(key, isFelt ? Math.hypot(tdc, FELT_LATE) : tdc);
      to.push({
        kind: 'flank',
        entry,
        round: id,
        view,
        valve,
        atValve,
        method,
        flank,
        from: from ?? 'base',
        figure,
        ring: at,
        angle: at - offset,
        zero: key,
        step,
        standard: null,
        felt: isFelt,
      });
    }
  }
}

function addTrace(
  trace: TraceFinding,
  facts: readonly CardFact[],
  zeros: Map<string, number>,
  to: Observation[],
): void {
  const { curve, valve, sitsOn, shift, zero, id } = trace;
  if (!curve) return;
  const key = `trace ${id}`;
  zeros.set(key, zero?.standard ?? UNPROVED_TDC);
  const at = (from: 'base' | 'peak', figure: number): void => {
    const flanks = curve.flanks(from === 'peak' ? curve.peak - figure : figure);
    if (!flanks) return;
    for (const flank of ['opening', 'closing'] as const) {
      const { angle, standard } = flanks[flank];
      to.push({
        entry: id,
        round: `${id} ${from} ${figure}`,
        view: key,
        valve,
        atValve: sitsOn === 'valve',
        kind: 'flank',
        method: 'trace',
        flank,
        from,
        figure,
        ring: angle + shift,
        angle: angle + shift,
        zero: key,
        step: 0,
        standard,
        felt: false,
      });
    }
  };
  at('peak', TRACE_DROP * curve.peak);
  const printed = facts.flatMap((fact) => ('height' in fact && fact.valve === valve ? [fact.height] : []));
  if (sitsOn !== 'valve') for (const height of new Set(printed)) if (height < curve.peak / 2) at('base', height);
}

/** Ids that devices make grow with time; mostly they are in order already. */
function sortByEntry(observations: Observation[]): void {
  let before = '';
  for (const { entry } of observations) {
    if (entry < before) {
      observations.sort((a, b) => (a.entry < b.entry ? -1 : a.entry > b.entry ? 1 : 0));
      return;
    }
    before = entry;
  }
}

/** How many of the observations were taken before the wheel that they were read on was last found standing where it should. */
function settledOf(build: Ground, observations: readonly Observation[], rounds: readonly RoundFinding[]): number {
  let setting: string | null = null;
  for (const { readings, zeroProved } of rounds)
    for (const reading of readings) {
      if (reading.at === null) continue;
      // Readings on more than one setting of the wheel: each has its own zero, and none speaks for the other.
      if (!zeroProved || (setting !== null && setting !== reading.setting)) return 0;
      ({ setting } = reading);
    }
  if (setting === null) return 0;
  let last = '';
  for (const { stages } of build.zeros)
    for (const stage of stages) {
      if (stage.id !== setting) continue;
      for (const { before, after } of stage.passes) {
        const [one, other] = [before[0]?.id, after[0]?.id];
        // One contact alone shows nothing; both do, of all that was read before the first of them.
        if (one === undefined || other === undefined) continue;
        const first = one < other ? one : other;
        if (first > last) last = first;
      }
    }
  let settled = 0;
  for (const { entry } of observations) if (entry < last) settled += 1;
  return settled;
}
