import type { Result } from '@yosoku/core/problem';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { type LengthUnit, inches } from '@yosoku/core/units/length';
import { type TypedLength, typedLengthOf, wholeLength } from '@/forms/typed-length';
import { typedFigure } from '@/forms/typed-figure';
import { LASH } from '@yosoku/core/record/entries/limits';

/** What is wanted of the valves, as it is typed. */
export interface LashForm {
  readonly kind: 'lash' | 'preload';
  readonly engine: 'cold' | 'hot';
  readonly intake: string;
  readonly exhaust: string;
  /** By how much the blade that must not go is thicker; empty where one blade is used. */
  readonly noGo: string;
  readonly turns: string;
  readonly pitch: string;
  readonly valves: ValvesName;
}

/** How many valves a cylinder has, and of which kind. */
export const VALVE_COUNTS = {
  '2': { intake: 1, exhaust: 1 },
  '3': { intake: 2, exhaust: 1 },
  '4': { intake: 2, exhaust: 2 },
  '5': { intake: 3, exhaust: 2 },
} as const;
export type ValvesName = keyof typeof VALVE_COUNTS;

/** As it was typed, else as the last time, else one of each. */
function valvesName(typed: string | undefined, { lash }: Report): ValvesName {
  const before = lash.job?.count;
  const name = typed ?? (before ? String(before.intake + before.exhaust) : '2');
  return name === '3' || name === '4' || name === '5' ? name : '2';
}

type Field = 'intake' | 'exhaust' | 'noGo' | 'turns' | 'pitch';
type Wanted = BodyOf<'lash.begun'>['wanted'];
export type ReadLash = Result<{ readonly wanted: Wanted }, { readonly errors: Partial<Record<Field, string>> }>;

/** Blades are bought in such steps. Common practice, no source. */
const USUAL_STEP = { in: inches('0.002'), mm: 0.05 } as const;

const shown = (mm: number | null | undefined, units: LengthUnit): string => (mm == null ? '' : wholeLength(mm, units));

/**
 * The form as it is met: what was typed, else as it was set the last time at that temperature, else what the card or this engine's own
 * growth gives.
 */
export function lashForm(draft: Readonly<Record<string, string>>, report: Report): LashForm {
  const { lash, build } = report;
  const { job, proposal } = lash;
  const { units } = build;
  const engine = (draft.engine ?? usualEngine(lash)) === 'hot' ? 'hot' : 'cold';
  const before = job?.engine === engine && job.wanted.kind === 'lash' ? job.wanted : null;
  const preload = job?.wanted.kind === 'preload' ? job.wanted : null;
  return {
    kind: (draft.kind ?? usualKind(report)) === 'preload' ? 'preload' : 'lash',
    engine,
    // What stands there for one temperature is no answer for the other.
    intake: draft[`intake-${engine}`] ?? shown(before?.intake ?? proposal[engine].intake, units),
    exhaust: draft[`exhaust-${engine}`] ?? shown(before?.exhaust ?? proposal[engine].exhaust, units),
    noGo: draft.noGo ?? shown(before ? before.noGo : USUAL_STEP[units], units),
    turns: draft.turns ?? String(preload?.turns ?? ''),
    pitch: draft.pitch ?? shown(preload?.pitch, units),
    valves: valvesName(draft.valves, report),
  };
}

/** As the last time; else as the card's only figure is meant. */
function usualEngine({ job, proposal }: Report['lash']): string {
  const printedHotOnly = proposal.cold.intake === null && proposal.hot.intake !== null;
  return job?.engine ?? (printedHotOnly ? 'hot' : 'cold');
}

const usualKind = ({ lash, prepare }: Report): string =>
  lash.job?.wanted.kind ?? (prepare.asItStands?.lifter === 'hydraulic' ? 'preload' : 'lash');

/** Fields that are lengths. */
export type LengthName = Exclude<Field, 'turns'>;
const IS_NEEDED: Readonly<Record<LengthName, boolean>> = { intake: true, exhaust: true, noGo: false, pitch: false };
const MOST: Readonly<Record<LengthName, number>> = { ...LASH, intake: LASH.gap, exhaust: LASH.gap };

/** A length of the form as it is typed. A step or a pitch of nothing is none. */
export function typedIn(form: LashForm, field: LengthName, units: LengthUnit): TypedLength {
  const typed = typedLengthOf(form[field], { units, family: 'lift', most: MOST[field] });
  return typed.state === 'good' && typed.mm === 0 && !IS_NEEDED[field]
    ? { state: 'wrong', message: 'More than 0, or nothing.' }
    : typed;
}

/** What the form says, or what is wrong with which field. */
export function readLash(form: LashForm, units: LengthUnit): ReadLash {
  const errors: Partial<Record<Field, string>> = {};
  const length = (field: LengthName): number | undefined => {
    const typed = typedIn(form, field, units);
    if (typed.state === 'good') return typed.mm;
    if (typed.state === 'wrong') errors[field] = typed.message;
    else if (IS_NEEDED[field]) errors[field] = 'Say what is wanted.';
    return undefined;
  };
  if (form.kind === 'preload') {
    const turns = typedFigure(form.turns);
    if (!(turns >= 0 && turns <= LASH.turns)) errors.turns = `Turns past zero lash, 0 to ${LASH.turns}.`;
    const pitch = length('pitch');
    return Object.keys(errors).length > 0
      ? { ok: false, errors }
      : { ok: true, wanted: { kind: 'preload', turns, ...(pitch === undefined ? {} : { pitch }) } };
  }
  const [intake, exhaust, noGo] = [length('intake'), length('exhaust'), length('noGo')];
  return intake === undefined || exhaust === undefined || Object.keys(errors).length > 0
    ? { ok: false, errors }
    : { ok: true, wanted: { kind: 'lash', intake, exhaust, ...(noGo === undefined ? {} : { noGo }) } };
}
