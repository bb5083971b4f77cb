import { Controller, type UseFormReturn } from 'react-hook-form';
import type { LengthUnit } from '@yosoku/core/units/length';
import { typedLengthOf } from '@/forms/typed-length';
import { TextField } from '@/ui/text-field';
import { cardProblems, eventEcho } from './card-trouble';
import type { CardField as FieldName, CardForm } from './typed-card';

interface CardFieldProps {
  readonly form: UseFormReturn<CardForm>;
  readonly units: LengthUnit;
  readonly name: FieldName;
  readonly label: string;
  readonly hint?: string | undefined;
  /** A length: what was understood is echoed. */
  readonly length?: boolean;
}

/** One figure of the card or the target. */
export function CardField({ form, units, name, label, hint, length = false }: CardFieldProps) {
  const values = form.watch();
  const trouble = cardProblems(values, units)[name];
  const degrees = eventEcho(values, name, units);
  const typed = length ? typedLengthOf(values[name], { family: 'lift', units }) : null;
  return (
    <Controller
      control={form.control}
      name={name}
      rules={{ validate: (value) => cardProblems({ ...form.getValues(), [name]: value }, units)[name] ?? true }}
      render={({ field: { value, onChange, onBlur }, fieldState }) => (
        <TextField
          testID={`card-${name}`}
          label={label}
          value={value}
          onChange={onChange}
          onBlur={onBlur}
          inputMode={name === 'name' ? 'text' : 'decimal'}
          error={fieldState.error ? trouble : undefined}
          echo={typed?.state === 'good' ? typed.understood : degrees}
          hint={hint}
        />
      )}
    />
  );
}
