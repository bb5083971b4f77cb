import type { FittedHardware } from './entry';
import type { Ground } from './parts';

export type CamName = 'single' | 'intake' | 'exhaust';

/** A camshaft of the engine. */
export interface Cam {
  readonly key: string;
  readonly cam: CamName;
  readonly bank: 1 | 2;
  /** "the cam", "the intake cam", "the exhaust cam of bank 2". */
  readonly name: string;
}

export const camKey = (cam: CamName, bank: 1 | 2): string => `${cam} ${bank}`;

/** Every camshaft that an engine has. */
export function camsOf({ description }: Ground): Cam[] {
  const { cams, secondBank } = description.body.engine;
  if (cams !== 'twin') return [{ key: camKey('single', 1), cam: 'single', bank: 1, name: 'the cam' }];
  const banks = secondBank === undefined ? ([1] as const) : ([1, 2] as const);
  return banks.flatMap((bank) =>
    (['intake', 'exhaust'] as const).map((cam) => ({
      key: camKey(cam, bank),
      cam,
      bank,
      name: `the ${cam} cam${banks.length === 1 ? '' : ` of bank ${bank}`}`,
    })),
  );
}

/** The cams that a part turns. */
export const turnedBy = ({ cam, bank }: Pick<FittedHardware, 'cam' | 'bank'>, all: readonly Cam[]): Cam[] =>
  all.filter(
    (each) => (bank === null || each.bank === bank) && (cam === 'all' || each.cam === 'single' || each.cam === cam),
  );
