import type { Random } from '../statistics/random';
import type { Twist } from './twists';

/** tdc: true TDC proved. cam: how far off it sits. proof: moved and proved. cause: what is wrong. lobe: which one is worn. lash: every valve set right. pushrod: the one to order. play: the cam’s end play cured. free: nothing is asked. */
export type Goal = 'tdc' | 'cam' | 'proof' | 'cause' | 'lobe' | 'lash' | 'pushrod' | 'play' | 'free';

export interface Exercise {
  readonly title: string;
  /** What is asked, in a sentence. */
  readonly task: string;
  /** 1 to 5. */
  readonly level: 1 | 2 | 3 | 4 | 5;
  readonly minutes: number;
  readonly goal: Goal;
  /** Is the degree wheel set and proved when it begins? */
  readonly tdc: 'to-find' | 'proved';
  /** Every step is said without asking. */
  readonly guided: boolean;
  /** Does the wheel carry a second set of numbers? */
  readonly twoRings?: true;
  /** Is there no wheel, only the rim of the balancer and a tape? */
  readonly noWheel?: true;
  /** Can the lobes of all cylinders be measured? One of them is worn then. */
  readonly everyLobe?: true;
  /** Can the lash be felt and set? all: every valve is off. one: a single one was set on its ramp. */
  readonly lash?: 'all' | 'one';
  /** Are its rockers on studs, with an adjustable pushrod to try? */
  readonly pushrods?: true;
  /** Can the cam be pushed to and fro behind its cover? */
  readonly play?: true;
  readonly make: (random: Random) => Twist;
}
