import type { BodyOf } from '@yosoku/core/logbook/entry';
import type { Report } from '@yosoku/core/logbook/report';
import { type LengthUnit, formatLength, parseLength } from '@yosoku/core/units/length';
import { DEFAULT_LIMIT } from '@yosoku/core/verdict/verdict';

/** The card and target as typed. */
export type CardForm = Record<'name' | 'centreline' | 'lobeLift' | 'kind' | 'advance' | 'wanted' | 'limit', string>;

type Trouble = Partial<Record<keyof CardForm, string>>;

export type ReadCard =
  | {
      readonly ok: true;
      readonly card: Omit<BodyOf<'card.entered'>, 'replaces'>;
      readonly target: Omit<BodyOf<'target.set'>, 'replaces'>;
    }
  | { readonly ok: false; readonly message: string };

/** A form for a build without a card yet. */
export const emptyCard = ({ target }: Report): CardForm => ({
  name: '',
  centreline: '',
  lobeLift: '',
  kind: target.kind,
  advance: '2',
  wanted: '',
  limit: String(target.limit || DEFAULT_LIMIT),
});

/** The form as last kept. */
export function cardForm(report: Report): CardForm {
  const { card, target, build } = report;
  const aim = target.intakeCentreline;
  const ahead = aim !== null && card.intakeCentreline !== null ? card.intakeCentreline - aim : 2;
  return {
    name: card.name ?? '',
    centreline: card.intakeCentreline === null ? '' : String(card.intakeCentreline),
    lobeLift: card.lobeLift === null ? '' : formatLength(card.lobeLift, build.units),
    kind: target.kind,
    advance: target.kind === 'ahead-of-card' ? String(ahead) : '2',
    wanted: target.kind === 'centreline' && aim !== null ? String(aim) : '',
    limit: String(target.limit),
  };
}

/** A figure as typed: decimal comma or point, minus sign or hyphen. NaN when it is none. */
function figure(typed: string): number {
  const text = typed.trim().replace(',', '.').replace('−', '-').replace(/°$/, '');
  return /^-?(\d+\.?\d*|\.\d+)$/.test(text) ? Number(text) : NaN;
}

const outside = (typed: string, from: number, to: number, what: string): string | undefined => {
  const value = figure(typed);
  if (Number.isNaN(value)) return `Type ${what} in figures.`;
  return value < from || value > to
    ? `${typed.trim()} cannot be ${what}: expected ${from} to ${to} degrees.`.replaceAll('-', '−')
    : undefined;
};

/** What is wrong with each field, in words. Empty fields that may stay empty are not wrong. */
export function cardProblems(form: CardForm, unit: LengthUnit): Trouble {
  const trouble: Trouble = {};
  if (form.centreline.trim() !== '') trouble.centreline = outside(form.centreline, 1, 179, 'an intake centreline');
  if (form.lobeLift.trim() !== '') {
    const lift = parseLength(form.lobeLift, { family: 'lift', unit });
    if (!lift.ok) trouble.lobeLift = lift.message;
    else if (lift.mm === 0) trouble.lobeLift = 'A lobe lift of 0 lifts no valve.';
    else if (lift.mm > 40) trouble.lobeLift = `${lift.understood} is more than any lobe lifts. Check the unit.`;
  }
  if (form.kind === 'ahead-of-card') trouble.advance = outside(form.advance, -20, 20, 'an advance');
  if (form.kind === 'centreline') trouble.wanted = outside(form.wanted, 1, 179, 'an intake centreline');
  trouble.limit = outside(form.limit, 0.1, 10, 'a limit');
  if (form.name.length > 80) trouble.name = 'At most 80 characters.';
  return trouble;
}

/** The form as entries, or the first thing that is wrong with it. */
export function readCard(form: CardForm, unit: LengthUnit): ReadCard {
  const first = Object.values(cardProblems(form, unit)).find((each) => each !== undefined);
  if (first) return { ok: false, message: first };
  const lift = parseLength(form.lobeLift, { family: 'lift', unit });
  const centreline = form.centreline.trim() === '' ? undefined : figure(form.centreline);
  const lobeLift = lift.ok ? lift.mm : undefined;
  if (centreline === undefined && lobeLift === undefined)
    return {
      ok: false,
      message: 'The card is empty. Enter at least the intake centreline or the lobe lift.',
    };
  const name = form.name.trim();
  return {
    ok: true,
    card: {
      ...(name ? { name } : {}),
      intake: {
        ...(centreline === undefined ? {} : { centreline }),
        ...(lobeLift === undefined ? {} : { lobeLift }),
      },
    },
    target: {
      target:
        form.kind === 'ahead-of-card'
          ? { kind: 'ahead-of-card', advance: figure(form.advance) }
          : form.kind === 'centreline'
            ? { kind: 'centreline', centreline: figure(form.wanted) }
            : { kind: 'card' },
      limit: figure(form.limit),
    },
  };
}
