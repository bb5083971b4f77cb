import type { Valve } from '@yosoku/core/cam/card';
import { drawingOf } from '@yosoku/core/report/drawing';
import type { Entry } from '@yosoku/core/record/entry';
import type { DrawnPart } from '@yosoku/core/verdict/drawn';
import { drawErrors } from '@yosoku/core/verdict/monte-carlo';
import { makeRandom } from '@yosoku/core/statistics/random';

export interface DrawingAsked {
  readonly entries: readonly Entry[];
  readonly trial: string;
  readonly cam: Valve;
  readonly bank: 1 | 2;
  readonly draws: number;
  readonly seed: number;
}

export type DrawingTold =
  | { readonly drawn: number }
  | { readonly part: DrawnPart; readonly standard: number; readonly expanded: number }
  | { readonly nothing: true };

/** Draws beside the page, so that the page goes on. Asked once; tells how far it is, then what it came to. */
self.onmessage = ({ data }: MessageEvent<DrawingAsked>) => {
  const tell = (told: DrawingTold): void => self.postMessage(told);
  const asked = drawingOf(data.entries, data.trial, data.cam, data.bank);
  if (!asked) return tell({ nothing: true });
  const drawing = drawErrors(asked, data.draws, makeRandom(data.seed));
  for (let step = drawing.next(); ; step = drawing.next()) {
    if (step.done) return tell({ part: step.value, standard: asked.standard, expanded: asked.expanded });
    tell({ drawn: step.value });
  }
};
