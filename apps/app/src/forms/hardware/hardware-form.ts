import type { Result } from '@yosoku/core/problem';
import {
  type Hardware,
  type HardwareKindName,
  HARDWARE_KINDS,
  HARDWARE_KIND_NAMES,
  hardwareSchema,
} from '@yosoku/core/timing-set/hardware';
import { type LengthUnit, parseLength, typedLength } from '@yosoku/core/units/length';
import { typedFigure } from '@/forms/typed-figure';
import { NAME_LENGTH } from '@yosoku/core/record/entries/limits';

/** A piece of hardware as typed. One flat form for all kinds; each kind has its own fields. */
export type HardwareForm = Record<
  | 'name'
  | 'kind'
  | 'stamped'
  | 'marks'
  | 'radius'
  | 'offsets'
  | 'range'
  | 'scale'
  | 'gear'
  | 'hub'
  | 'teeth'
  | 'sets'
  | 'sense'
  | 'from'
  | 'to',
  string
>;
type HardwareField = keyof HardwareForm;

export const EMPTY_HARDWARE: HardwareForm = {
  name: '',
  kind: 'keyways',
  stamped: '',
  marks: '',
  radius: '',
  offsets: '',
  range: '',
  scale: 'yes',
  gear: '',
  hub: '',
  teeth: '',
  sets: '',
  sense: '',
  from: '',
  to: '',
};

/** How a field is typed: a choice, one figure, a length, or several of them in a row. */
interface FieldSpec {
  readonly name: Exclude<HardwareField, 'name' | 'kind'>;
  readonly typed: 'degrees' | 'count' | 'length' | 'degrees-list' | 'length-list' | 'stamped' | 'sense' | 'scale';
  readonly label: string;
  readonly hint?: string;
}

const STAMPED: FieldSpec = { name: 'stamped', typed: 'stamped', label: 'Its label counts' };
const MARKS: FieldSpec = {
  name: 'marks',
  typed: 'degrees-list',
  label: 'Positions, as stamped',
  hint: 'Like −8 −4 0 4 8. Positive advances the cam.',
};
const RANGE: FieldSpec = {
  name: 'range',
  typed: 'degrees',
  label: 'Range to either side',
  hint: 'Degrees, as stamped.',
};
const SCALE: FieldSpec = { name: 'scale', typed: 'scale', label: 'Has it a scale to be set by?' };
const OFFSETS: FieldSpec = {
  name: 'offsets',
  typed: 'length-list',
  label: 'Offsets',
  hint: 'Like 0.010 0.020 in, or 0.25 0.5 mm. Each goes in either way round.',
};

/** The fields of each kind, in the order in which they are asked. */
export const HARDWARE_FIELDS: Readonly<Record<HardwareKindName, readonly FieldSpec[]>> = {
  keyways: [STAMPED, MARKS],
  bushings: [STAMPED, MARKS],
  'offset-dowel': [{ name: 'radius', typed: 'length', label: 'Radius of the dowel circle' }, OFFSETS],
  'offset-key': [{ name: 'radius', typed: 'length', label: 'Radius of the shaft' }, OFFSETS],
  eccentric: [STAMPED, RANGE, SCALE],
  'slotted-pulley': [STAMPED, RANGE, SCALE],
  'hole-circle': [
    { name: 'gear', typed: 'count', label: 'Holes in the gear' },
    { name: 'hub', typed: 'count', label: 'Holes in the hub' },
  ],
  'hole-sets': [
    { name: 'teeth', typed: 'count', label: 'Teeth of the cam wheel' },
    { name: 'sets', typed: 'count', label: 'Hole sets' },
  ],
  taper: [],
  'tooth-jump': [{ name: 'teeth', typed: 'count', label: 'Teeth of the cam gear' }],
  phaser: [
    STAMPED,
    { name: 'sense', typed: 'sense', label: 'The figure grows as the cam comes' },
    { name: 'from', typed: 'degrees', label: 'Lowest figure' },
    { name: 'to', typed: 'degrees', label: 'Highest figure' },
  ],
};

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

function read(form: HardwareForm, { name, typed }: FieldSpec, unit: LengthUnit): unknown {
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
  { readonly trouble: Partial<Record<HardwareField, string>> }
>;

/** What was typed as hardware, or what is wrong with which field. */
export function readHardware(form: HardwareForm, unit: LengthUnit): ReadHardware {
  const kind = kindOfForm(form);
  const body = Object.fromEntries(HARDWARE_FIELDS[kind].map((spec) => [spec.name, read(form, spec, unit)]));
  const parsed = hardwareSchema.safeParse({ kind, ...body });
  const trouble: Partial<Record<HardwareField, string>> = {};
  if (form.name.trim() === '') trouble.name = 'Give it a name, as it hangs on the shelf.';
  else if (form.name.trim().length > NAME_LENGTH) trouble.name = `At most ${NAME_LENGTH} characters.`;
  for (const { path, message } of parsed.error?.issues ?? []) {
    const field = String(path[0] ?? 'kind') as HardwareField;
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
  for (const { name: field, typed } of HARDWARE_FIELDS[hardware.kind]) {
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
