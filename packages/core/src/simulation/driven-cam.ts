import { type Hardware, type Setting, advanceOfSetting, reachOf, tableOf } from '../timing-set/hardware';
import { isSame } from '../timing-set/learned-response';
import type { Random } from '../statistics/random';

/** How a made-up piece of hardware really behaves. */
export interface RealHardware {
  /** What the cam really does when it is put from one place to another, crank degrees of advance. */
  readonly put: (from: Setting, to: Setting) => number;
}

/** Hardware seldom gives more than its label, and some much less. From memory. */
const GIVES = { least: 0.7, most: 1 } as const;

/**
 * Hardware that gives less than its label, each mark with an error of its own, and no two assemblies quite alike.
 * Kinds whose label is geometry itself only scatter.
 */
export function makeHardware(hardware: Hardware, random: Random): RealHardware {
  const { trust } = tableOf(hardware);
  const middle = (GIVES.least + GIVES.most) / 2;
  const response = trust.response > 0.05 ? middle + random.within((GIVES.most - GIVES.least) / 2) : 1;
  const reach = reachOf(hardware);
  // Each mark has its error from the beginning: the order in which they are used must not matter.
  const marks = new Map(
    (reach.kind === 'marks' ? reach.positions : []).map(({ mark }) => [mark, random.normal(trust.mark / 2)]),
  );
  const errorOf = (setting: Setting): number => ('mark' in setting ? (marks.get(setting.mark) ?? 0) : 0);
  return {
    put: (from, to) => {
      if (isSame(from, to)) return 0;
      const label = (advanceOfSetting(hardware, to) ?? 0) - (advanceOfSetting(hardware, from) ?? 0);
      return response * label + errorOf(to) - errorOf(from) + random.normal(0.15);
    },
  };
}
