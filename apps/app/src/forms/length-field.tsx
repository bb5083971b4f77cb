import { TextField } from '@/ui/text-field';
import { type TypedLength, troubleIn } from './typed-length';

const understoodIn = (typed: TypedLength): string | undefined =>
  typed.state === 'good' ? typed.understood : undefined;

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
  /** What stands below a good one, if not how it was understood. */
  readonly says?: (mm: number, understood: string) => string | undefined;
}

/** A field for a length: what was understood stands below it, or what is wrong. */
export function LengthField({ testID, label, text, typed, onChange, onSubmit, hint, missing, says }: LengthFieldProps) {
  const echo = typed.state === 'good' && says ? says(typed.mm, typed.understood) : understoodIn(typed);
  return (
    <TextField
      testID={testID}
      label={label}
      value={text}
      inputMode="decimal"
      onChange={onChange}
      error={typed.state === 'empty' ? missing : (troubleIn(typed) ?? undefined)}
      echo={echo}
      hint={hint}
      {...(onSubmit ? { onSubmitEditing: onSubmit } : {})}
    />
  );
}
