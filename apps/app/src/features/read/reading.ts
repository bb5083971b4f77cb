import type { WheelReading } from '@yosoku/core/crank/wheel';

/** What the stations of Read share: a reading to be written, and where one goes next. */
export interface Reading {
  readonly record: (
    figure: number,
    wheel: WheelReading | null,
    more?: { readonly approach?: 'forward' | 'backward'; readonly box?: string },
  ) => void;
  readonly decide: () => void;
  readonly undo: (() => void) | null;
}
