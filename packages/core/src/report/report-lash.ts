import { VALVES, type Valve } from '../cam/card';
import {
  EFFECT_OF,
  type LashCause,
  type LashFinding,
  type LashHistory,
  type LashJobFinding,
  type ValveLash,
} from '../findings/derive-lash';
import type { LashGrowth } from '../findings/lash-growth';
import type { SeatSource, Seats } from '../findings/seat-events';
import type { Build } from '../record/fold';
import { computedDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength, formatLength } from '../units/length';
import { decimal } from '../units/decimal';
import { preloadOf } from '../valve-train/lash';
import type { LashOrder, LashOrderName } from '../valve-train/lash-orders';
import { WANTED_CLEAR } from '../valve-train/resting';
import { isSameValve, valveWords } from '../valve-train/valve-name';
import { type CrankWords, crankWords, placeOf, reportStop } from './lash-places';
import type { Report } from './report-schema';
import { capital } from './capital';

type Lash = Report['lash'];

export const LASH_ORDER_NAME: Readonly<Record<LashOrderName, string>> = {
  firing: 'By firing order',
  partner: 'By its partner, without a wheel',
  'two-stops': 'Two stops, a turn apart',
  fewest: 'Fewest stops for this cam',
};

const FROM: Readonly<Record<SeatSource, string>> = {
  trace: 'the trace of its lobe',
  card: 'the card’s figures at the seat',
  likeness: 'a lobe like its other figures, counted 10° wider on either side',
};

/** `listed(['a', 'b', 'c'])` is "a, b and c". */
const listed = (items: readonly string[]): string =>
  items.length < 2 ? items.join('') : `${items.slice(0, -1).join(', ')} and ${items.at(-1) ?? ''}`;

/** The lash of the build as the Report has it. */
export function reportLash(found: LashFinding, build: Build): Lash {
  const { units, engine } = build.description.body;
  const { seats, problem, job } = found;
  const crank = crankWords(build);
  const orders = found.orders.map((order) => reportOrder(order, crank));
  return {
    sentence: sentenceOf(found, crank, units),
    here: found.here,
    seats: seats && {
      words: seatWords(seats),
      intake: eventsOf(seats, 'intake'),
      exhaust: eventsOf(seats, 'exhaust'),
    },
    problem,
    orders,
    proposal: {
      order: proposedOrder(found, build),
      ...proposedLash(found),
      words: [...VALVES.flatMap((valve) => proposalWords(found, valve, units))],
    },
    effects: { intake: effectWords(found, 'intake', units), exhaust: effectWords(found, 'exhaust', units) },
    job: job && reportJob(job, crank, units, engine.rockerRatio?.intake ?? seats?.intake.ratio ?? null),
    history: found.history.map((each) => historyWords(each, units)),
  };
}

const eventsOf = (seats: Seats, valve: Valve) => {
  const { opens, closes, slack } = seats[valve];
  return { opens, closes, slack };
};

function seatWords(seats: Seats): string {
  const { intake, exhaust } = seats;
  const from =
    intake.from === exhaust.from
      ? `Where the valves leave their seats: from ${FROM[intake.from]}.`
      : `Where the valves leave their seats: the intake from ${FROM[intake.from]}, the exhaust from ${FROM[exhaust.from]}.`;
  return intake.unplaced || exhaust.unplaced
    ? `${from} A cam that has not been measured is taken to stand as its card has it, 5° more on either side.`
    : from;
}

function reportOrder(order: LashOrder, crank: CrankWords): Lash['orders'][number] {
  return {
    order: order.order,
    name: LASH_ORDER_NAME[order.order],
    words: orderWords(order),
    stops: order.stops.map((stop) => reportStop(stop, crank)),
    caught: [...order.caught],
    nearest: order.nearest,
  };
}

function orderWords({ order, stops, caught, nearest }: LashOrder): string {
  const many = `${stops.length} stops`;
  const valves = stops.flatMap((stop) => stop.valves).length;
  if (nearest === null)
    return order === 'firing'
      ? `${many}. At its own firing TDC a valve of any usual cam rests.`
      : `${many}. One valve of a cylinder shows when the other rests.`;
  if (caught.length > 0) {
    const those = caught.map((each) => `${valveWords({ ...each, which: null })}, ${standsWords(each.clear ?? 0)}`);
    return `${many}, but not with this cam: ${caught.length} of ${valves} would be set on or too near their ramp, and are set at their own firing TDC instead: ${listed(those)}.`;
  }
  const least = `no valve nearer to its ramp than ${computedDegrees(nearest, 0)}`;
  return nearest < WANTED_CLEAR ? `${many}, ${least}: ${WANTED_CLEAR}° are wanted.` : `${many}, ${least}.`;
}

/** `standsWords(-7)` is "7° onto its lobe". */
const standsWords = (clear: number): string =>
  clear < 0 ? `${computedDegrees(-clear, 0)} onto its lobe` : `${computedDegrees(clear, 0)} from its ramp`;

function proposedOrder({ seats, orders }: LashFinding, { asItStands }: Build): LashOrderName {
  if (asItStands?.body.wheel === false) return 'partner';
  const measured = seats !== null && VALVES.every((valve) => seats[valve].from !== 'likeness');
  return measured && orders.some(({ order }) => order === 'fewest') ? 'fewest' : 'firing';
}

/** What the card gives, and what it becomes at the other temperature where this engine has shown it. */
function proposedLash({ card, growth }: LashFinding): Pick<Lash['proposal'], 'cold' | 'hot'> {
  const of = (valve: Valve, engine: 'cold' | 'hot'): number | null => {
    const given = card[engine][valve];
    if (given !== null) return given;
    const other = card[engine === 'cold' ? 'hot' : 'cold'][valve];
    const grows = growth[valve];
    if (other === null || !grows) return null;
    return Math.max(0, other + (engine === 'cold' ? grows.mean : -grows.mean));
  };
  return {
    cold: { intake: of('intake', 'cold'), exhaust: of('exhaust', 'cold') },
    hot: { intake: of('intake', 'hot'), exhaust: of('exhaust', 'hot') },
  };
}

function proposalWords({ card, growth }: LashFinding, valve: Valve, units: LengthUnit): string[] {
  const [hot, cold] = [card.hot[valve], card.cold[valve]];
  const words: string[] = [];
  const given = [
    hot === null ? null : `${formatLength(hot, units)} hot`,
    cold === null ? null : `${formatLength(cold, units)} cold`,
  ].filter((each) => each !== null);
  if (given.length > 0) words.push(`${capital(valve)}: the card gives ${given.join(' and ')}.`);
  const grows = growth[valve];
  if (grows) words.push(growthWords(grows, valve, units));
  else if (given.length === 1)
    words.push(
      `What the ${valve} is at the other temperature, the card does not say, and nothing is converted: measure a valve both ways and it is learned here.`,
    );
  return words;
}

function growthWords({ mean, expanded, count }: LashGrowth, valve: Valve, units: LengthUnit): string {
  const size = formatComputedLength(Math.abs(mean), units);
  const those = count === 1 ? 'one valve' : `${count} valves`;
  return `On this engine the ${valve} is ${size} ${mean < 0 ? 'looser' : 'tighter'} hot than cold (±${formatComputedLength(expanded, units)}, ${those}).`;
}

function effectWords({ effects, seats }: LashFinding, valve: Valve, units: LengthUnit): string | null {
  const effect = effects[valve];
  if (!effect) return null;
  const from =
    seats?.[valve].from === 'trace'
      ? 'from its lobe as traced and the likeness of it'
      : 'from the likeness of its lobe';
  return `${formatLength(EFFECT_OF, units)} more: at the seat the ${valve} opens ${computedDegrees(effect.opensLater)} later and closes ${computedDegrees(effect.closesEarlier)} earlier, ${computedDegrees(-effect.duration)} less duration (${from}); it lifts as much less, and clears its piston by as much more.`;
}

function wantedWords({ wanted, engine }: LashJobFinding, units: LengthUnit, ratio: number | null): string {
  if (wanted.kind === 'lash')
    return wanted.intake === wanted.exhaust
      ? `${formatLength(wanted.intake, units)}, ${engine}`
      : `intake ${formatLength(wanted.intake, units)}, exhaust ${formatLength(wanted.exhaust, units)}, ${engine}`;
  const turned = `${turnsWords(wanted.turns)} past zero lash`;
  if (wanted.pitch === undefined) return turned;
  const { reckoned, atPushrod } = preloadOf(wanted.turns, wanted.pitch, ratio ?? 1);
  const commonly = `${formatComputedLength(reckoned, units)} as commonly reckoned`;
  return ratio === null
    ? `${turned}: ${commonly}`
    : `${turned}: ${commonly}, ${formatComputedLength(atPushrod, units)} at the pushrod under a rocker on its stud`;
}

/** `turnsWords(0.75)` is "¾ turn"; `turnsWords(1.5)` "1½ turns". */
export function turnsWords(turns: number): string {
  const whole = Math.floor(turns + 1e-9);
  const part = { 25: '¼', 50: '½', 75: '¾' }[Math.round((turns - whole) * 100)];
  const figure = turns === whole ? String(whole) : part ? `${whole === 0 ? '' : whole}${part}` : decimal(turns, 2);
  return `${figure} ${turns > 1 ? 'turns' : 'turn'}`;
}

function reportJob(
  job: LashJobFinding,
  crank: CrankWords,
  units: LengthUnit,
  ratio: number | null,
): NonNullable<Lash['job']> {
  const { valves, stops } = job;
  const wanted = wantedWords(job, units, ratio);
  const counts = {
    all: valves.length,
    set: valves.filter(({ state }) => state !== 'due').length,
    good: valves.filter(({ state }) => state === 'good').length,
  };
  const round = roundOf(job);
  const stopOf = ({ cylinder, valve }: ValveLash): number =>
    stops.findIndex((stop) => stop.valves.some((each) => each.cylinder === cylinder && each.valve === valve));
  return {
    id: job.id,
    order: job.order,
    engine: job.engine,
    wanted: job.wanted,
    wantedWords: wanted,
    count: job.count,
    state: job.state,
    round,
    stops: stops.map((stop) => reportStop(stop, crank)),
    next: job.next,
    counts,
    countWords:
      round === 1
        ? `${capital(wanted)}. ${counts.set} of ${counts.all} set.`
        : `${capital(wanted)}. All ${counts.all} set; ${counts.good} looked at again, and as they were left.`,
    valves: valves.map((each) => ({
      cylinder: each.cylinder,
      valve: each.valve,
      which: each.which,
      stop: stopOf(each),
      state: each.state,
      wanted: each.wanted,
      left: each.left,
      found: each.found,
      turns: each.turns,
      shows: showsOf(each, units),
      task: sentenceFor(job, each, crank, units),
      words: valveTrouble(each, units),
    })),
  };
}

/** The first time through, until every valve has been set, or been found right. */
const roundOf = ({ valves }: LashJobFinding): 1 | 2 =>
  valves.some((each) => each.state === 'due' || isFoundOff(each)) ? 1 : 2;

/** Found another than wanted, and not touched yet. */
const isFoundOff = ({ state, cause }: ValveLash): boolean => (state === 'loose' || state === 'tight') && cause === null;

function showsOf({ state, left, found, turns }: ValveLash, units: LengthUnit): string {
  if (turns !== null) return turnsWords(turns);
  if (state === 'loose' || state === 'tight') return found === null ? '' : formatLength(found, units);
  return left === null ? '' : formatLength(left, units);
}

/** What is wrong with a valve, and what probably happened; null where nothing is. */
function valveTrouble(each: ValveLash, units: LengthUnit): string | null {
  const { state, by, cause, nearRamp } = each;
  const name = capital(valveWords(each));
  if (state === 'loose' || state === 'tight') {
    const off = `${name}: ${formatComputedLength(Math.abs(by ?? 0), units)} ${state === 'loose' ? 'looser' : 'tighter'}`;
    return cause ? `${off} than it was left. ${causeWords(cause, units)}` : `${off} than wanted. Set it.`;
  }
  if (nearRamp !== null && state === 'set')
    return `${name} stood ${standsWords(nearRamp)} when it was set: ${WANTED_CLEAR}° are wanted. Look at it again in the second round.`;
  return null;
}

function causeWords(cause: LashCause, units: LengthUnit): string {
  switch (cause.code) {
    case 'set-on-ramp':
      return `It stood ${standsWords(cause.clear)} when it was set, so it was not on its base circle. Set it again where it rests.`;
    case 'set-up-or-lock':
      return cause.lifted === null
        ? 'It was not on its base circle when it was set, or its lock has turned. Set it again and hold the screw while it is locked.'
        : `As if its lobe stood ${formatComputedLength(cause.lifted, units)} up when it was set; or its lock has turned. Set it again and hold the screw while it is locked.`;
    case 'measured-on-ramp':
      return `It stands ${standsWords(cause.clear)} where it is measured now: measure it where it rests before anything is turned.`;
    case 'lock-turned':
      return 'It is not on its base circle now, or its lock has turned. Turn the crank to its place once more, measure, and set it again.';
  }
}

function historyWords({ steps, trend, ...name }: LashHistory, units: LengthUnit): Lash['history'][number] {
  const told = steps.map(
    ({ left, found, engine }) =>
      `left at ${formatLength(left, units)}, found at ${formatLength(found, units)} (${engine})`,
  );
  const said = `${capital(valveWords(name))}: ${told.join('; ')}.`;
  const why =
    trend === null
      ? ''
      : trend.change === 'tighter'
        ? ' It tightens: valve or seat is receding. Have the seat looked at before its lash is gone.'
        : ' It loosens: look at tip, rocker, pushrod, lifter and lobe, and at its lock.';
  return { ...name, words: `${said}${why}`, trend: trend?.change ?? null };
}

function sentenceOf({ job, orders }: LashFinding, crank: CrankWords, units: LengthUnit): string {
  if (orders.length === 0) return 'Give the engine’s firing order first.';
  if (!job) return 'Set the lash: what is wanted, cold or hot, and in which order?';
  const all = job.valves.length;
  if (job.next === null)
    return job.wanted.kind === 'preload'
      ? `All ${all} adjusters are turned down. Turn the engine over by hand before it is started.`
      : `All ${all} valves are set, and were found again as they were left.`;
  const { next } = job;
  const own = job.valves.find((each) => isSameValve(each, next));
  return own ? sentenceFor(job, own, crank, units) : '';
}

/** Where the crank is turned for a valve, and what is done to it. */
function sentenceFor(job: LashJobFinding, own: ValveLash, crank: CrankWords, units: LengthUnit): string {
  const at = job.stops.find(({ valves }) =>
    valves.some(({ cylinder, valve }) => cylinder === own.cylinder && valve === own.valve),
  );
  if (!at) return '';
  const turn = at.watched ? `Turn until ${placeOf(at, crank)}` : `Turn to ${placeOf(at, crank)}`;
  return `${turn}. ${capital(taskOf(job, own, units))}`;
}

/** What is done to the next valve. */
function taskOf({ wanted }: LashJobFinding, own: ValveLash, units: LengthUnit): string {
  const name = valveWords(own);
  if (wanted.kind === 'preload') return `the ${name}: to zero lash, then ${turnsWords(wanted.turns)} more.`;
  if (own.state === 'set')
    return `second round: is the ${name} still at ${formatLength(own.left ?? own.wanted, units)}?`;
  const lash = formatLength(own.wanted, units);
  return own.state === 'due' || isFoundOff(own) ? `set the ${name} to ${lash}.` : `set the ${name} to ${lash} again.`;
}
