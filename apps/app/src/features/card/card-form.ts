import type { Checked } from '@yosoku/core/problem';
import { type CamCard, type LobeCard, type TimingLine, type Valve, VALVES } from '@yosoku/core/cam/card';
import { rimTrouble, roundOf } from '@yosoku/core/crank/rim';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { RULING_METHODS, type RulingMethod } from '@yosoku/core/measure/read-methods';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { type LengthUnit, parseLength, typedLength } from '@yosoku/core/units/length';
import { DEFAULT_LIMIT } from '@yosoku/core/verdict/limits';
import { ALONG_RIM, eventFigure, figure } from './event-figure';
import { CARD, MOST_LIFT, NAME_LENGTH, ROCKER_RATIO, TARGET } from '@yosoku/core/record/entries/limits';

/** Checking heights that there is room for. */
export const TIMING_ROWS = [0, 1, 2, 3] as const;
export type TimingRow = (typeof TIMING_ROWS)[number];
/** Centrelines for which the card may print the lift at TDC. */
export const TDC_ROWS = [0, 1, 2] as const;
type TdcRow = (typeof TDC_ROWS)[number];

/** Figures that each valve has one of. The exhaust’s carry `ex`. */
type LobeFigure = 'centreline' | 'lobeLift' | 'valveLift' | 'ratio' | 'lashHot' | 'lashCold';
type TimingFigure = `${'duration' | 'opens' | 'closes'}${TimingRow}`;
type TdcFigure = `${'tdcCentreline' | 'tdcLift'}${TdcRow}`;
type OfLobe = LobeFigure | TimingFigure | TdcFigure;

/** The card and target as typed. */
export type CardForm = Record<
  | 'name'
  | OfLobe
  | `ex ${OfLobe}`
  | `height${TimingRow}`
  | `at${TimingRow}`
  | 'lsa'
  | 'groundIn'
  | 'means'
  | 'flywheel'
  | 'kind'
  | 'advance'
  | 'wanted'
  | 'exKind'
  | 'exAdvance'
  | 'exWanted'
  | 'limit'
  | 'judgedBy',
  string
>;
export type CardField = keyof CardForm;
type Trouble = Partial<Record<CardField, string>>;

export const fieldOf = <F extends OfLobe>(valve: Valve, figure: F): F | `ex ${F}` =>
  valve === 'intake' ? figure : `ex ${figure}`;

/** What the form says: a card and a target, or what is wrong. */
export interface TypedCard {
  readonly card: Omit<BodyOf<'card.entered'>, 'replaces'>;
  readonly target: Omit<BodyOf<'target.set'>, 'replaces'>;
}
export type ReadCard = Checked<TypedCard>;

/** The height that most cards check at. Common practice, no source. */
const USUAL_HEIGHT = { in: '0.050', mm: '1.00' } as const;

const EMPTY_LOBE = Object.fromEntries(
  VALVES.flatMap((valve) => [
    ...(['centreline', 'lobeLift', 'valveLift', 'ratio', 'lashHot', 'lashCold'] as const).map((name) =>
      fieldOf(valve, name),
    ),
    ...TIMING_ROWS.flatMap((row) =>
      (['duration', 'opens', 'closes'] as const).map((name) => fieldOf(valve, `${name}${row}`)),
    ),
    ...TDC_ROWS.flatMap((row) => [fieldOf(valve, `tdcCentreline${row}`), fieldOf(valve, `tdcLift${row}`)]),
  ]).map((name) => [name, '']),
) as Record<OfLobe | `ex ${OfLobe}`, string>;

/** A form for a build without a card yet. */
export const emptyCard = ({ target, build }: Report, rule: RulingMethod | null): CardForm => ({
  ...EMPTY_LOBE,
  name: '',
  height0: USUAL_HEIGHT[build.units],
  height1: '',
  height2: '',
  height3: '',
  at0: 'lobe',
  at1: 'lobe',
  at2: 'lobe',
  at3: 'lobe',
  lsa: '',
  groundIn: '',
  means: 'unsaid',
  flywheel: '',
  kind: target.kind,
  advance: '2',
  wanted: '',
  exKind: 'with-intake',
  exAdvance: '2',
  exWanted: '',
  limit: String(target.limit || DEFAULT_LIMIT),
  judgedBy: target.judgedBy ?? rule ?? 'any',
});

const plain = (value: number | undefined): string =>
  value === undefined
    ? ''
    : decimal(value, 2)
        .replace(/\.?0+$/, '')
        .replace('−', '-');

/** The figures of a card as they would be typed. */
export function typedCard(card: CamCard, units: LengthUnit): Partial<CardForm> {
  const length = (mm: number | undefined): string => (mm === undefined ? '' : typedLength(mm, units));
  const typed: Partial<CardForm> = {
    name: card.name ?? '',
    lsa: plain(card.lobeSeparation),
    groundIn: plain(card.groundInAdvance),
    means: card.centrelineMeans ?? 'unsaid',
    flywheel:
      card.rim === undefined ? '' : typedLength(Math.round((card.rim / Math.PI) * 1e4) / 1e4, units, 'dimension'),
  };
  const lines = rowsOf(card);
  for (const [row, line] of lines.entries()) {
    if (row >= TIMING_ROWS.length) break;
    typed[`height${row as TimingRow}`] = line.height === null ? '' : length(line.height);
    typed[`at${row as TimingRow}`] = line.at;
  }
  for (const valve of VALVES) {
    const lobe: LobeCard = card[valve] ?? {};
    typed[fieldOf(valve, 'centreline')] = plain(lobe.centreline);
    typed[fieldOf(valve, 'ratio')] = plain(lobe.ratio);
    for (const name of ['lobeLift', 'valveLift', 'lashHot', 'lashCold'] as const)
      typed[fieldOf(valve, name)] = length(lobe[name]);
    for (const line of lobe.timing ?? []) {
      const row = lines.findIndex((each) => each.height === line.height && each.at === line.at) as TimingRow;
      for (const name of ['duration', 'opens', 'closes'] as const)
        typed[fieldOf(valve, `${name}${row}`)] = plain(line[name]);
    }
    for (const [row, each] of (lobe.liftAtTdc ?? []).slice(0, TDC_ROWS.length).entries()) {
      typed[fieldOf(valve, `tdcCentreline${row as TdcRow}`)] = plain(each.centreline);
      typed[fieldOf(valve, `tdcLift${row as TdcRow}`)] = length(each.lift);
    }
  }
  return typed;
}

/** The checking heights of both valves, each once: a stated one first, so that the first row is never the advertised one. */
function rowsOf(card: CamCard): Pick<TimingLine, 'height' | 'at'>[] {
  const rows: Pick<TimingLine, 'height' | 'at'>[] = [];
  for (const { height, at } of VALVES.flatMap((valve) => card[valve]?.timing ?? []))
    if (!rows.some((row) => row.height === height && row.at === at)) rows.push({ height, at });
  return rows.sort((a, b) => Number(a.height === null) - Number(b.height === null));
}

/** The form as last kept. */
export function cardForm(report: Report): CardForm {
  const { card, target, build } = report;
  const empty = emptyCard(report, null);
  const kept = card.printed ? typedCard(card.printed, build.units) : {};
  return {
    ...empty,
    ...kept,
    kind: target.kind,
    advance: target.kind === 'ahead-of-card' && target.ahead !== null ? plain(target.ahead) : '2',
    wanted: target.kind === 'centreline' && target.intakeCentreline !== null ? plain(target.intakeCentreline) : '',
    exKind: target.exhaust?.kind ?? 'with-intake',
    exAdvance: target.exhaust?.kind === 'ahead-of-card' ? plain(target.exhaust.advance) : '2',
    exWanted: target.exhaust?.kind === 'centreline' ? plain(target.exhaust.centreline) : '',
    limit: String(target.limit),
    judgedBy: target.judgedBy ?? 'any',
  };
}

/** Once round the flywheel as typed, mm; null where it is not, or cannot be. */
function flywheelOf({ flywheel }: CardForm, unit: LengthUnit): number | null {
  const parsed = parseLength(flywheel, { family: 'dimension', unit });
  if (!parsed.ok) return null;
  const round = roundOf(parsed.mm);
  return rimTrouble(round) === null ? Math.round(round * 1e4) / 1e4 : null;
}

/** An event along the rim as degrees, to be echoed: "21.49°". Nothing for what is typed in degrees. */
export function eventEcho(form: CardForm, field: CardField, unit: LengthUnit): string | undefined {
  const which = /(opens|closes)\d$/.exec(field)?.[1];
  if (which === undefined || !ALONG_RIM.test(form[field])) return undefined;
  const value = eventFigure(form[field], which as 'opens' | 'closes', flywheelOf(form, unit));
  return Number.isNaN(value) ? undefined : computedDegrees(value, 2);
}

const outside = (value: number, typed: string, from: number, to: number, what: string): string | undefined => {
  if (Number.isNaN(value)) return `Type ${what} in figures.`;
  return value < from || value > to
    ? `${typed.trim()} cannot be ${what}: expected ${from} to ${to}.`.replaceAll('-', '−')
    : undefined;
};

/** What is wrong with each field, in words. Empty fields that may stay empty are not wrong. */
export function cardProblems(form: CardForm, unit: LengthUnit): Trouble {
  const trouble: Trouble = {};
  const rim = flywheelOf(form, unit);
  const angle = (name: CardField, from: number, to: number, what: string): void => {
    if (form[name].trim() !== '') trouble[name] = outside(figure(form[name]), form[name], from, to, what);
  };
  const length = (name: CardField, most: number, what: string, least: 'zero' | 'more' = 'more'): void => {
    if (form[name].trim() === '') return;
    const parsed = parseLength(form[name], { family: 'lift', unit });
    if (!parsed.ok) trouble[name] = parsed.message;
    else if (parsed.mm === 0 && least === 'more') trouble[name] = `${what} of 0 lifts no valve.`;
    else if (parsed.mm > most)
      trouble[name] = `${parsed.understood} is more than any ${what.toLowerCase()}. Check the unit.`;
  };
  for (const valve of VALVES) {
    angle(fieldOf(valve, 'centreline'), ...CARD.centreline, `an ${valve} centreline`);
    length(fieldOf(valve, 'lobeLift'), MOST_LIFT, 'Lobe lift');
    length(fieldOf(valve, 'valveLift'), MOST_LIFT, 'Valve lift');
    angle(fieldOf(valve, 'ratio'), ...ROCKER_RATIO, 'a rocker ratio');
    length(fieldOf(valve, 'lashHot'), CARD.lash, 'Lash', 'zero');
    length(fieldOf(valve, 'lashCold'), CARD.lash, 'Lash', 'zero');
    for (const row of TIMING_ROWS) {
      angle(fieldOf(valve, `duration${row}`), ...CARD.duration, 'a duration');
      for (const which of ['opens', 'closes'] as const) {
        const name = fieldOf(valve, `${which}${row}`);
        if (form[name].trim() === '') continue;
        const needsRim = ALONG_RIM.test(form[name]) && rim === null;
        trouble[name] = needsRim
          ? 'Inches along the rim need the diameter of the flywheel: give it below.'
          : outside(eventFigure(form[name], which, rim), form[name], ...CARD.event, 'a valve event');
      }
    }
    for (const row of TDC_ROWS) {
      const [centreline, lift] = [fieldOf(valve, `tdcCentreline${row}`), fieldOf(valve, `tdcLift${row}`)] as const;
      angle(centreline, ...CARD.centreline, 'a centreline');
      length(lift, MOST_LIFT, 'Lift at TDC', 'zero');
      if (form[lift].trim() !== '' && form[centreline].trim() === '')
        trouble[centreline] = 'For which centreline is it?';
    }
  }
  const heights = new Map<string, TimingRow>();
  for (const row of TIMING_ROWS) {
    length(`height${row}`, CARD.height, 'Checking height', 'zero');
    if (!hasTiming(form, row)) continue;
    const parsed = parseLength(form[`height${row}`], { family: 'lift', unit });
    const key = `${parsed.ok ? parsed.mm : 'unstated'} ${form[`at${row}`]}`;
    if (heights.has(key)) trouble[`height${row}`] = 'This checking height stands twice.';
    heights.set(key, row);
  }
  if (form.flywheel.trim() !== '' && rim === null) {
    const parsed = parseLength(form.flywheel, { family: 'dimension', unit });
    trouble.flywheel = parsed.ok ? (rimTrouble(roundOf(parsed.mm)) ?? undefined) : parsed.message;
  }
  angle('lsa', ...CARD.lobeSeparation, 'an LSA');
  angle('groundIn', ...CARD.groundInAdvance, 'a ground-in advance');
  if (form.kind === 'ahead-of-card')
    trouble.advance = outside(figure(form.advance), form.advance, ...TARGET.advance, 'an advance');
  if (form.kind === 'centreline')
    trouble.wanted = outside(figure(form.wanted), form.wanted, ...CARD.centreline, 'an intake centreline');
  if (form.exKind === 'ahead-of-card')
    trouble.exAdvance = outside(figure(form.exAdvance), form.exAdvance, ...TARGET.advance, 'an advance');
  if (form.exKind === 'centreline')
    trouble.exWanted = outside(figure(form.exWanted), form.exWanted, ...CARD.centreline, 'an exhaust centreline');
  trouble.limit = outside(figure(form.limit), form.limit, ...TARGET.limit, 'a limit');
  if (form.name.length > NAME_LENGTH) trouble.name = `At most ${NAME_LENGTH} characters.`;
  return Object.fromEntries(Object.entries(trouble).filter(([, words]) => words !== undefined));
}

/** Does anything stand at this checking height? */
export const hasTiming = (form: CardForm, row: TimingRow): boolean =>
  VALVES.some((valve) =>
    (['duration', 'opens', 'closes'] as const).some((name) => form[fieldOf(valve, `${name}${row}`)].trim() !== ''),
  );

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
