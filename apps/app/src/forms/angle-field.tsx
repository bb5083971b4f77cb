import { TextField } from '@/ui/text-field';
import { typedFigure } from './typed-figure';

/** Degrees as typed, from 0 to the most that there is room for; null where there are none, or they do not fit. */
export function typedAngleOf(text: string, most: number): number | null {
  const angle = typedFigure(text);
  return angle >= 0 && angle <= most ? angle : null;
}

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
