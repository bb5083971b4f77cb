import { READ_METHODS } from '../measure/read-methods';
import { USUAL_HEIGHT } from '../cam/usual-height';
import {
  EVENT_NAMES,
  SIDE_WORDS,
  type Valve,
  centrelineAsPrinted,
  eventCentre,
  opensAsPrinted,
  closesAsPrinted,
} from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import { advanced, flanksAt, lobeAt } from '../cam/lobe';
import { formatReading, readingAt } from '../crank/wheel';
import { computedDegrees } from '../units/degrees';
import { formatComputedLength, formatLength } from '../units/length';
import type { Cam } from '../record/cams-of';
import type { BankFinding, TrialFinding } from './derive-trial';
import type { PredictedView } from '../record/entry';
import type { Build } from '../record/fold';
import { measuredLobe } from './measured-lobe';
import { advanceOfChange } from './what-it-gave';
import { eventFigure } from './views/card-events';
import { type View, viewKey } from './views/view';
import { offsetOf } from './readings/zero-passes';

/** A cam that is to be moved, by how much and how surely: crank degrees of advance. */
export interface ExpectedMove {
  readonly cam: Cam;
  readonly by: number;
  readonly standard: number;
}

/** What a method would read that has not been used: the lobe is only a likeness of the real one. Crank degrees, from memory. */
const LIKENESS = 1.5;
/** What is expected of a wheel is told as a wheel is read: in half degrees. */
const half = (degrees: number): number => Math.round(2 * degrees) / 2;

/** What the readings should show after a move: every view of the trial carried over, and the methods that were not used from the lobe as measured. */
export function predictViews(
  build: Build,
  trial: TrialFinding,
  card: CompletedCard,
  moves: readonly ExpectedMove[],
): PredictedView[] {
  return trial.banks.flatMap((bank) =>
    (['intake', 'exhaust'] as const).flatMap((valve) => {
      const move = moves.find(({ cam }) => cam.bank === bank.bank && (cam.cam === 'single' || cam.cam === valve));
      if (!move) return [];
      const seen = bank.views
        .filter((view) => view.valve === valve)
        .flatMap((view) => carried(view, move, build, bank));
      const taken = new Set(seen.map(({ view }) => view));
      return [...seen, ...fromLobe(build, bank, card, valve, move).filter(({ view }) => !taken.has(view))];
    }),
  );
}

/** A view that was measured, as it will be: the difference is the move, whatever lean or card. */
function carried(view: View, { by, standard }: ExpectedMove, build: Build, bank: BankFinding): PredictedView[] {
  const perAdvance = advanceOfChange(view, 1);
  if (perAdvance === null || view.valve === 'both') return [];
  const value = view.value + by / perAdvance;
  const size = sizeOf(view.method, view.valve, half(value));
  const readings = readingsAfter(view, by, build, bank);
  return [
    {
      view: view.key,
      title: view.title,
      shows: [size, readings].filter((each) => each !== '').join('; '),
      value,
      unit: 'crank degrees',
      standard: Math.hypot(view.standard ?? 0, standard),
    },
  ];
}

/** What a view will show, in words. */
function sizeOf(method: View['method'], valve: Valve, value: number): string {
  const { gives } = READ_METHODS[method];
  if (gives === 'opening') return eventFigure(value, valve, 'opens');
  const degrees = computedDegrees(value, 1);
  return gives === 'events' ? `centre ${degrees}` : `${degrees} ${SIDE_WORDS[valve].centreline}`;
}

/** What the wheel will show at the same figures. */
function readingsAfter(view: View, by: number, build: Build, { rounds }: BankFinding): string {
  const round = rounds.findLast(
    (each) =>
      each.method === view.method &&
      each.valve === view.valve &&
      each.problem === null &&
      each.height !== null &&
      READ_METHODS[view.method].reads === 'flanks' &&
      view.key.endsWith(viewKey(view.method, each.valve, each.height, each.sitsOn === 'valve')),
  );
  if (!round) return '';
  const { wheel } = build.description.body;
  const shows = round.readings.flatMap(({ at, slot }) =>
    at === null || slot === null ? [] : [formatReading(readingAt(wheel, Math.round(4 * (at - by)) / 4))],
  );
  return shows.length === 0 ? '' : `on the wheel near ${shows.join(' and ')}`;
}

function fromLobe(
  build: Build,
  bank: BankFinding,
  card: CompletedCard,
  valve: 'intake' | 'exhaust',
  { by, standard }: ExpectedMove,
): PredictedView[] {
  const lobe = measuredLobe(bank, card, valve);
  if (!lobe) return [];
  const { units } = build.description.body;
  const after = advanced(lobe, by);
  const height = USUAL_HEIGHT[units];
  const flanks = height < lobe.peak ? flanksAt(after, height) : null;
  const prefix = bank.bank === 2 ? 'bank 2 ' : '';
  const bankWords = bank.bank === 2 ? 'Bank 2: ' : '';
  const name = `${bankWords}${valve === 'intake' ? 'Intake' : 'Exhaust'}`;
  const unsure = Math.hypot(standard, LIKENESS);
  const drop = Math.min(height, lobe.peak / 2);
  const near = flanksAt(after, lobe.peak - drop);
  const names = EVENT_NAMES[valve];
  const lift = lobeAt(after, 0);
  const made: PredictedView[] = [];
  if (near) {
    const centre = (near.opening + near.closing) / 2;
    const printed = centrelineAsPrinted(valve, centre);
    made.push({
      view: prefix + viewKey('centreline', valve, height, false),
      title: `${name} centreline, ${formatLength(height, units)} drop`,
      shows: `${computedDegrees(half(printed))} ${SIDE_WORDS[valve].centreline}`,
      value: printed,
      unit: 'crank degrees',
      standard: unsure,
    });
  }
  if (flanks) {
    const [opens, closes] = [opensAsPrinted(valve, flanks.opening), closesAsPrinted(valve, flanks.closing)];
    made.push({
      view: prefix + viewKey('events', valve, height, false),
      title: `${name} events at ${formatLength(height, units)}`,
      shows: `${names.opens} ${eventFigure(half(opens), valve, 'opens')}, ${names.closes} ${eventFigure(half(closes), valve, 'closes')}`,
      value: eventCentre(valve, opens, closes),
      unit: 'crank degrees',
      standard: unsure,
    });
  }
  made.push({
    view: `${prefix}lift-at-tdc ${valve}`,
    title: `${name} lift at TDC`,
    shows: formatComputedLength(lift.lift, units),
    value: lift.lift,
    unit: 'mm',
    standard: Math.max(0.01, Math.abs(lift.slope) * unsure),
  });
  return made;
}

/** Where the wheel shows the crank for setting a cam straight by the indicator, out of the last centreline that was read. */
export function lastCentreline(bank: BankFinding | undefined, valve: 'intake' | 'exhaust') {
  const round = bank?.rounds.findLast(
    (each) =>
      READ_METHODS[each.method].gives === 'centreline' &&
      each.valve === valve &&
      each.problem === null &&
      each.centreline !== null,
  );
  const [opening, closing] = [0, 1].map((slot) => round?.readings.find((each) => each.slot === slot)?.at ?? null);
  if (!round || opening == null || closing == null || round.height === null) return null;
  const offset = offsetOf(round.zero);
  return { opening: opening - offset, closing: closing - offset, offset, drop: round.height };
}
