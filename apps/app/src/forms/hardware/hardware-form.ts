import type { Result } from '@yosoku/core/problem';
import {
  type Hardware,
  type HardwareField,
  type HardwareKindName,
  HARDWARE_KINDS,
  HARDWARE_KIND_NAMES,
  hardwareSchema,
  questionsOf,
} from '@yosoku/core/timing-set/hardware';
import type { Question } from '@yosoku/core/timing-set/kinds/kind';
import { type LengthUnit, parseLength, typedLength } from '@yosoku/core/units/length';
import { typedFigure } from '@/forms/typed-figure';
import { NAME_LENGTH } from '@yosoku/core/record/entries/limits';

/** A piece of hardware as typed. One flat form for all kinds; each asks for its own fields. */
export type HardwareForm = Record<'name' | 'kind' | HardwareField, string>;

export const EMPTY_HARDWARE = {
  ...Object.fromEntries(
    HARDWARE_KIND_NAMES.flatMap(questionsOf).map(({ name, typed }) => [name, typed === 'scale' ? 'yes' : '']),
  ),
  name: '',
  kind: 'keyways',
} as HardwareForm;

export const kindOfForm = ({ kind }: HardwareForm): HardwareKindName =>
  HARDWARE_KIND_NAMES.find((name) => name === kind) ?? 'keyways';

const parts = (typed: string): string[] => typed.split(/[;\s]+/).filter((each) => each !== '');

/** Lengths in a row: a unit at the end holds for all of them. */
function lengths(typed: string, unit: LengthUnit): number[] {
  const match = /^(.*?)(mm|in|thou|")?\s*$/i.exec(typed);
  const suffix = match?.[2] ?? '';
  return parts((match?.[1] ?? '').replaceAll(/(mm|in|thou|")/gi, ' ')).map((each) => {
    const parsed = parseLength(`${each}${suffix}`, { family: 'lift', unit });
    return parsed.ok ? parsed.mm : NaN;
  });
}

function read(form: HardwareForm, { name, typed }: Question<HardwareField>, unit: LengthUnit): unknown {
  const text = form[name];
  switch (typed) {
    case 'degrees':
      return typedFigure(text);
    case 'count':
      return /^\s*\d+\s*$/.test(text) ? Number(text) : NaN;
    case 'degrees-list':
      return parts(text).map(typedFigure);
    case 'length': {
      const parsed = parseLength(text, { family: 'lift', unit });
      return parsed.ok ? parsed.mm : NaN;
    }
    case 'length-list':
      return lengths(text, unit);
    case 'scale':
      return text === 'yes';
    case 'stamped':
    case 'sense':
      return text;
  }
}

export type ReadHardware = Result<
  { readonly name: string; readonly hardware: Hardware },
  { readonly trouble: Partial<Record<keyof HardwareForm, string>> }
>;

/** What was typed as hardware, or what is wrong with which field. */
export function readHardware(form: HardwareForm, unit: LengthUnit): ReadHardware {
  const kind = kindOfForm(form);
  const body = Object.fromEntries(questionsOf(kind).map((question) => [question.name, read(form, question, unit)]));
  const parsed = hardwareSchema.safeParse({ kind, ...body });
  const trouble: Partial<Record<keyof HardwareForm, string>> = {};
  if (form.name.trim() === '') trouble.name = 'Give it a name, as it hangs on the shelf.';
  else if (form.name.trim().length > NAME_LENGTH) trouble.name = `At most ${NAME_LENGTH} characters.`;
  for (const { path, message } of parsed.error?.issues ?? []) {
    const field = String(path[0] ?? 'kind') as keyof HardwareForm;
    trouble[field] ??= `${message.charAt(0).toUpperCase()}${message.slice(1)}.`;
  }
  return parsed.success && trouble.name === undefined
    ? { ok: true, name: form.name.trim(), hardware: parsed.data }
    : { ok: false, trouble };
}

/** Kept hardware as it would be typed. */
export function hardwareForm(name: string, hardware: Hardware, unit: LengthUnit): HardwareForm {
  const form: Record<string, string> = { ...EMPTY_HARDWARE, name, kind: hardware.kind };
  const values: Readonly<Record<string, unknown>> = hardware;
  for (const { name: field, typed } of questionsOf(hardware.kind)) {
    const value = values[field];
    form[field] =
      typed === 'scale'
        ? value === true
          ? 'yes'
          : 'no'
        : typed === 'length'
          ? typedLength(Number(value), unit)
          : typed === 'length-list' && Array.isArray(value)
            ? `${value.map(Number).join(' ')} mm`
            : Array.isArray(value)
              ? value.join(' ')
              : String(value);
  }
  return form as HardwareForm;
}

export const KIND_CHOICES = HARDWARE_KIND_NAMES.map((kind) => ({
  value: kind,
  label: HARDWARE_KINDS[kind].name,
  about: HARDWARE_KINDS[kind].about,
}));
