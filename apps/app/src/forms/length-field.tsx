import { type LengthFamily, type LengthUnit, inches, parseLength, typedLength } from '@yosoku/core/units/length';
import { TextField } from '@/ui/text-field';

export type TypedLength =
  | { readonly state: 'empty' }
  | { readonly state: 'good'; readonly mm: number; readonly understood: string }
  | { readonly state: 'wrong'; readonly message: string };

/**
 * A length as it is typed, in millimetres, or what is wrong with it.
 * @param most larger ones have the wrong unit, mm.
 */
export function typedLengthOf(
  text: string,
  { units, family, most }: { readonly units: 'in' | 'mm'; readonly family: LengthFamily; readonly most: number },
): TypedLength {
  if (text.trim() === '') return { state: 'empty' };
  const parsed = parseLength(text, { family, unit: units });
  if (!parsed.ok) return { state: 'wrong', message: parsed.message };
  if (parsed.mm > most) return { state: 'wrong', message: `${parsed.understood} is too much. Check the unit.` };
  return { state: 'good', mm: parsed.mm, understood: parsed.understood };
}

/** What is left of a product of decimals is no figure. */
const MICRO = 1e6;

/** A small length to be filled in, as it is told: whole thousandths of an inch, or hundredths of a millimetre. `wholeLength(1.4951, 'in')` is "0.059 in". */
export function wholeLength(mm: number, units: LengthUnit): string {
  const step = units === 'in' ? inches('0.001') : 0.01;
  return typedLength(Math.round(Math.round(mm / step) * step * MICRO) / MICRO, units);
}

interface LengthFieldProps {
  readonly testID: string;
  readonly label: string;
  readonly text: string;
  readonly typed: TypedLength;
  readonly onChange: (text: string) => void;
  readonly onSubmit?: () => void;
  readonly hint?: string;
  /** What stands below where nothing was typed and something is needed. */
  readonly missing?: string | undefined;
}

/** A field for a length: what was understood stands below it, or what is wrong. */
export function LengthField({ testID, label, text, typed, onChange, onSubmit, hint, missing }: LengthFieldProps) {
  return (
    <TextField
      testID={testID}
      label={label}
      value={text}
      inputMode="decimal"
      onChange={onChange}
      error={typed.state === 'wrong' ? typed.message : typed.state === 'empty' ? missing : undefined}
      echo={typed.state === 'good' ? typed.understood : undefined}
      hint={hint}
      {...(onSubmit ? { onSubmitEditing: onSubmit } : {})}
    />
  );
}
