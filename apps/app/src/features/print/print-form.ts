import type { Checked } from '@yosoku/core/problem';
import { READ_METHOD_NAMES, type ReadMethodName } from '@yosoku/core/measure/read-methods';
import { type PaperWish, WORKSHEETS, paperWish } from '@yosoku/core/paper/wish';
import { PAPER_NAMES, type PaperName } from '@yosoku/core/paper/drawing';
import type { PrinterFactor } from '@yosoku/core/paper/printer';
import { roundOf } from '@yosoku/core/crank/rim';
import type { LengthUnit } from '@yosoku/core/units/length';
import { type TypedLength, typedLengthOf } from '@/forms/typed-length';
import { typedFigure } from '@/forms/typed-figure';

type What = PaperWish['what'];
const WHATS = ['wheel', 'tape', 'worksheet', 'check'] as const satisfies readonly What[];
type Draft = Readonly<Record<string, string>>;

/** Fields that are lengths: what they may be at most, mm, and what stands there at first. */
const LENGTHS = {
  diameter: { most: 2000, first: { in: '7 in', mm: '180 mm' } },
  hole: { most: 400, first: { in: '1 in', mm: '25 mm' } },
  circle: { most: 800, first: { in: '', mm: '' } },
  bolt: { most: 60, first: { in: '0.375 in', mm: '10 mm' } },
  rim: { most: 4000, first: { in: '', mm: '' } },
  thickness: { most: 2, first: { in: '0.1 mm', mm: '0.1 mm' } },
} as const;
export type LengthName = keyof typeof LENGTHS;

/** What is to be printed, as it is typed. */
export interface PrintForm {
  readonly what: What;
  readonly paper: PaperName;
  readonly texts: Readonly<Record<LengthName, string>>;
  readonly typed: Readonly<Record<LengthName, TypedLength>>;
  readonly bolts: string;
  readonly places: 'none' | 'tdcs' | 'all';
  readonly measured: 'diameter' | 'round';
  readonly span: '60' | '180';
  readonly which: (typeof WORKSHEETS)[number];
  /** null: as the build would read next. */
  readonly method: ReadMethodName | null;
  readonly ring: '0-180' | '0-360' | '0-90';
  readonly sense: 'rising' | 'falling';
  readonly rotation: 'clockwise' | 'counter-clockwise';
}

const oneOf = <T extends string>(all: readonly T[], text: string | undefined, first: T): T =>
  all.find((each) => each === text) ?? first;

export function printForm(draft: Draft, units: LengthUnit): PrintForm {
  const names = Object.keys(LENGTHS) as LengthName[];
  const texts = Object.fromEntries(names.map((name) => [name, draft[name] ?? LENGTHS[name].first[units]])) as Record<
    LengthName,
    string
  >;
  const typed = Object.fromEntries(
    names.map((name) => [name, typedLengthOf(texts[name], { units, family: 'dimension', most: LENGTHS[name].most })]),
  ) as Record<LengthName, TypedLength>;
  return {
    what: oneOf(WHATS, draft.what, 'wheel'),
    paper: oneOf(PAPER_NAMES, draft.paper, units === 'in' ? 'letter' : 'a4'),
    texts,
    typed,
    bolts: draft.bolts ?? '4',
    places: oneOf(['none', 'tdcs', 'all'], draft.places, 'none'),
    measured: oneOf(['diameter', 'round'], draft.measured, 'diameter'),
    span: oneOf(['60', '180'], draft.span, '60'),
    which: oneOf(WORKSHEETS, draft.which, 'readings'),
    method: READ_METHOD_NAMES.find((name) => name === draft.method) ?? null,
    ring: oneOf(['0-180', '0-360', '0-90'], draft.ring, '0-180'),
    sense: oneOf(['rising', 'falling'], draft.sense, 'rising'),
    rotation: oneOf(['clockwise', 'counter-clockwise'], draft.rotation, 'clockwise'),
  };
}

export type ReadPrint = Checked<{ readonly query: Readonly<Record<string, string>> }>;

/**
 * What is asked of the server, or what is wrong.
 * @param ofBuild a build says itself how its wheel is numbered and which way it turns.
 */
export function readPrint(form: PrintForm, factor: PrinterFactor, ofBuild: boolean): ReadPrint {
  const query = { ...partOf(form, ofBuild), ...sheetOf(form, factor) };
  const wrong = FIELDS[form.what].map((name) => form.typed[name]).find(({ state }) => state === 'wrong');
  if (wrong?.state === 'wrong') return { ok: false, message: wrong.message };
  const missing = NEEDED[form.what];
  if (missing && form.typed[missing.field].state === 'empty') return { ok: false, message: missing.message };
  const checked = paperWish.safeParse(query);
  if (checked.success) return { ok: true, query };
  const [issue] = checked.error.issues;
  const said = issue?.message ?? 'this cannot be printed';
  return { ok: false, message: `${said.charAt(0).toUpperCase()}${said.slice(1)}.`.replace(/\.\.$/, '.') };
}

const FIELDS: Readonly<Record<What, readonly LengthName[]>> = {
  wheel: ['diameter', 'hole', 'circle', 'bolt'],
  tape: ['rim', 'thickness'],
  worksheet: [],
  check: [],
};

const NEEDED: Readonly<Partial<Record<What, { readonly field: LengthName; readonly message: string }>>> = {
  wheel: { field: 'diameter', message: 'Say how large the wheel is.' },
  tape: { field: 'rim', message: 'Say how large the rim is.' },
};

const sheetOf = ({ what, paper }: PrintForm, { across, along }: PrinterFactor) => ({
  what,
  paper,
  // A check is printed as the printer does it.
  across: what === 'check' ? '1' : String(across),
  along: what === 'check' ? '1' : String(along),
});

function partOf(form: PrintForm, ofBuild: boolean): Readonly<Record<string, string>> {
  const { typed } = form;
  const mm = (name: LengthName): number | null => {
    const length = typed[name];
    return length.state === 'good' ? length.mm : null;
  };
  const given = (name: LengthName): Record<string, string> => {
    const length = mm(name);
    return length === null ? {} : { [name]: String(length) };
  };
  switch (form.what) {
    case 'wheel':
      return {
        ...given('diameter'),
        ...given('hole'),
        ...(mm('circle') === null
          ? {}
          : { ...given('circle'), ...given('bolt'), bolts: String(typedFigure(form.bolts)) }),
        ...(ofBuild ? { places: form.places } : { ring: form.ring, sense: form.sense, rotation: form.rotation }),
      };
    case 'tape': {
      const rim = mm('rim');
      const round = rim === null ? null : form.measured === 'diameter' ? roundOf(rim) : rim;
      return { ...(round === null ? {} : { round: String(round) }), ...given('thickness'), span: form.span };
    }
    case 'worksheet':
      return { which: form.which, ...(form.which === 'readings' && form.method ? { method: form.method } : {}) };
    case 'check':
      return {};
  }
}
