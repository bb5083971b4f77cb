import type { Valve } from '@yosoku/core/cam/card';
import { type Sweep, sweepGap } from '@yosoku/core/clearance/sweep';
import type { Entry } from '@yosoku/core/record/entry';
import { gapCase } from '@yosoku/core/findings/gap-case';

export interface SweepAsked {
  readonly entries: readonly Entry[];
  readonly valve: Valve;
}

export type SweepTold = Sweep | { readonly nothing: true };

/** Sweeps the gap over crank and cam beside the page. */
self.onmessage = ({ data }: MessageEvent<SweepAsked>) => {
  const asked = gapCase(data.entries, data.valve);
  const told: SweepTold = asked ? sweepGap(asked.setting, asked.measured) : { nothing: true };
  self.postMessage(told);
};
