import { type CamCard, type LobeCard, type TimingLine, type Valve, VALVES } from '@yosoku/core/cam/card';
import type { Report } from '@yosoku/core/report/report';
import type { RulingMethod } from '@yosoku/core/measure/read-methods';
import { decimal } from '@yosoku/core/units/decimal';
import { type LengthUnit, typedLength } from '@yosoku/core/units/length';
import { DEFAULT_LIMIT } from '@yosoku/core/verdict/limits';

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
export type OfLobe = LobeFigure | TimingFigure | TdcFigure;

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

export const fieldOf = <F extends OfLobe>(valve: Valve, figure: F): F | `ex ${F}` =>
  valve === 'intake' ? figure : `ex ${figure}`;

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

/** Does anything stand at this checking height? */
export const hasTiming = (form: CardForm, row: TimingRow): boolean =>
  VALVES.some((valve) =>
    (['duration', 'opens', 'closes'] as const).some((name) => form[fieldOf(valve, `${name}${row}`)].trim() !== ''),
  );
