import type { Hardware, Setting } from './hardware';
import type { Response } from './learned-response';

/** A piece of hardware on a drive, and where it stands. */
export interface FittedPart {
  readonly part: string;
  readonly hardware: Hardware;
  readonly at: Setting;
  /** Keys of the cams that it turns. */
  readonly turns: readonly string[];
  readonly response: Response;
}
