import { LengthField } from '@/forms/length-field';
import type { ReadingChoice } from './use-reading-choice';

/** The drop or the checking height that a round is read at. */
export const HeightField = ({
  height,
  asked,
}: {
  readonly height: ReadingChoice['height'];
  readonly asked: boolean;
}) => (
  <LengthField
    testID="drop"
    label={height.label}
    text={height.text}
    typed={height.typed}
    onChange={height.type}
    missing={asked ? 'Type it first.' : undefined}
  />
);
