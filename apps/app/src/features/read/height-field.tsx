import { TextField } from '@/ui/text-field';
import type { ReadingChoice } from './use-reading-choice';

/** The drop or the checking height that a round is read at. */
export function HeightField({ height, asked }: { readonly height: ReadingChoice['height']; readonly asked: boolean }) {
  const trouble = height.trouble ?? (asked && height.mm === null ? 'Type it first.' : null);
  return (
    <TextField
      testID="drop"
      label={height.label}
      value={height.text}
      onChange={height.type}
      inputMode="decimal"
      error={trouble ?? undefined}
      echo={height.echo}
    />
  );
}
