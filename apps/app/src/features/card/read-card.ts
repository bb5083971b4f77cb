import type { Checked } from '@yosoku/core/problem';
import type { CamCard, LobeCard, Valve } from '@yosoku/core/cam/card';
import type { BodyOf } from '@yosoku/core/record/entry';
import { RULING_METHODS } from '@yosoku/core/measure/read-methods';
import { type LengthUnit, parseLength } from '@yosoku/core/units/length';
import {
  type CardField,
  type CardForm,
  type OfLobe,
  TDC_ROWS,
  TIMING_ROWS,
  type TimingRow,
  fieldOf,
} from './typed-card';
import { cardProblems, flywheelOf } from './card-trouble';
import { eventFigure, figure } from './event-figure';

/** What the form says: a card and a target, or what is wrong. */
export interface TypedCard {
  readonly card: Omit<BodyOf<'card.entered'>, 'replaces'>;
  readonly target: Omit<BodyOf<'target.set'>, 'replaces'>;
}
type ReadCard = Checked<TypedCard>;

function lobeOf(form: CardForm, valve: Valve, unit: LengthUnit): LobeCard {
  const angle = (name: OfLobe): number | undefined => {
    const value = figure(form[fieldOf(valve, name)]);
    return Number.isNaN(value) ? undefined : value;
  };
  const length = (name: CardField): number | undefined => {
    const parsed = parseLength(form[name], { family: 'lift', unit });
    return parsed.ok ? parsed.mm : undefined;
  };
  const event = (which: 'opens' | 'closes', row: TimingRow): number | undefined => {
    const value = eventFigure(form[fieldOf(valve, `${which}${row}`)], which, flywheelOf(form, unit));
    return Number.isNaN(value) ? undefined : value;
  };
  const timing = TIMING_ROWS.map((row) => ({
    height: length(`height${row}`) ?? null,
    at: form[`at${row}`] === 'valve' ? ('valve' as const) : ('lobe' as const),
    duration: angle(`duration${row}`),
    opens: event('opens', row),
    closes: event('closes', row),
  })).filter(({ duration, opens, closes }) => duration !== undefined || opens !== undefined || closes !== undefined);
  const liftAtTdc = TDC_ROWS.flatMap((row) => {
    const [centreline, lift] = [angle(`tdcCentreline${row}`), length(fieldOf(valve, `tdcLift${row}`))];
    return centreline === undefined || lift === undefined ? [] : [{ centreline, lift }];
  });
  return {
    centreline: angle('centreline'),
    lobeLift: length(fieldOf(valve, 'lobeLift')),
    valveLift: length(fieldOf(valve, 'valveLift')),
    ratio: angle('ratio'),
    lashHot: length(fieldOf(valve, 'lashHot')),
    lashCold: length(fieldOf(valve, 'lashCold')),
    timing: timing.length > 0 ? timing : undefined,
    liftAtTdc: liftAtTdc.length > 0 ? liftAtTdc : undefined,
  };
}

/** The card as far as it can be read, fields that are wrong left out: for the picture while it is typed. */
export function cardSoFar(form: CardForm, unit: LengthUnit): CamCard {
  const wrong = cardProblems(form, unit);
  const sound = { ...form, ...Object.fromEntries(Object.keys(wrong).map((name) => [name, ''])) } as CardForm;
  const [lsa, groundIn] = [figure(sound.lsa), figure(sound.groundIn)];
  return {
    intake: lobeOf(sound, 'intake', unit),
    exhaust: lobeOf(sound, 'exhaust', unit),
    lobeSeparation: Number.isNaN(lsa) ? undefined : lsa,
    groundInAdvance: Number.isNaN(groundIn) ? undefined : groundIn,
    ...(ridesOnRim(form) ? { rim: flywheelOf(form, unit) ?? undefined } : {}),
    ...(form.means === 'nose' || form.means === 'events' ? { centrelineMeans: form.means } : {}),
  };
}

/** Is any event given along the rim, or was it? */
const ridesOnRim = (form: CardForm): boolean => form.flywheel.trim() !== '';

const isEmpty = (value: object): boolean => Object.values(value).every((each) => each === undefined);
/** Without the figures that the card does not have: the form of an entry. */
const withoutGaps = <T extends object>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

/** What the cam is aimed at, as chosen on the form. */
function targetOf({ kind, advance, wanted }: CardForm): BodyOf<'target.set'>['target'] {
  if (kind === 'ahead-of-card') return { kind, advance: figure(advance) };
  return kind === 'centreline' ? { kind, centreline: figure(wanted) } : { kind: 'card' };
}

/** The form as entries, or the first thing that is wrong with it. */
export function readCard(form: CardForm, unit: LengthUnit): ReadCard {
  const first = Object.values(cardProblems(form, unit))[0];
  if (first) return { ok: false, message: first };
  const { intake, exhaust, lobeSeparation, groundInAdvance, rim, centrelineMeans } = cardSoFar(form, unit);
  const name = form.name.trim();
  const card = withoutGaps({
    ...(name ? { name } : {}),
    ...(intake && !isEmpty(intake) ? { intake } : {}),
    ...(exhaust && !isEmpty(exhaust) ? { exhaust } : {}),
    lobeSeparation,
    groundInAdvance,
    rim,
    // Of no use where the card prints no centreline at all.
    centrelineMeans: (intake?.centreline ?? exhaust?.centreline ?? lobeSeparation) ? centrelineMeans : undefined,
  }) as Omit<BodyOf<'card.entered'>, 'replaces'>;
  if (!hasCard(card) && form.kind !== 'centreline')
    return {
      ok: false,
      message:
        'The card is empty. Enter what it prints; without a card, aim at a centreline of your own, measure the cam, and write its card from that.',
    };
  const judgedBy = RULING_METHODS.find((method) => method === form.judgedBy);
  return {
    ok: true,
    card,
    target: {
      target: targetOf(form),
      ...exhaustTarget(form),
      limit: figure(form.limit),
      ...(judgedBy ? { judgedBy } : {}),
    },
  };
}

/** Is there a card at all, or only a target? */
export const hasCard = (card: Omit<BodyOf<'card.entered'>, 'replaces'>): boolean =>
  Object.keys(card).some((each) => each !== 'name' && each !== 'rim');

/** Of twin cams, where the exhaust is not simply to follow the intake. */
function exhaustTarget(form: CardForm): Pick<BodyOf<'target.set'>, 'exhaust'> {
  switch (form.exKind) {
    case 'card':
      return { exhaust: { kind: 'card' } };
    case 'ahead-of-card':
      return { exhaust: { kind: 'ahead-of-card', advance: figure(form.exAdvance) } };
    case 'centreline':
      return { exhaust: { kind: 'centreline', centreline: figure(form.exWanted) } };
    default:
      return {};
  }
}
