import { TextField } from '@/ui/text-field';
import { typedAngleOf } from './typed-figure';

interface AngleFieldProps {
  readonly testID: string;
  readonly label: string;
  readonly text: string;
  readonly most: number;
  readonly onChange: (text: string) => void;
  /** What stands below a good one. */
  readonly says?: (angle: number) => string | undefined;
  readonly hint?: string;
}

/** A field for degrees: what they amount to stands below it, or what is wrong. */
export function AngleField({ testID, label, text, most, onChange, says, hint }: AngleFieldProps) {
  const angle = typedAngleOf(text, most);
  return (
    <TextField
      testID={testID}
      label={label}
      value={text}
      onChange={onChange}
      inputMode="decimal"
      error={angle === null && text.trim() !== '' ? `Degrees from 0 to ${most}.` : undefined}
      echo={angle === null ? undefined : says?.(angle)}
      hint={hint}
    />
  );
}
