import { NORMAL_95 } from '../../statistics/normal';
import { READ_METHODS } from '../../measure/read-methods';
import type { Valve } from '../../cam/card';
import { computedDegrees } from '../../units/degrees';
import { type View, type ViewContext, makeView, plainDegrees } from './view';

/** The spacing of the two lobes as ground: TDC cancels in it. */
export function separationView(context: ViewContext, views: readonly View[]): View[] {
  const find = (valve: Valve): View | undefined =>
    views.find((view) => view.valve === valve && READ_METHODS[view.method].gives === 'centreline');
  const [intake, exhaust] = [find('intake'), find('exhaust')];
  if (!intake || !exhaust) return [];
  const without = ({ budget }: View): number =>
    Math.hypot(...budget.filter(({ from }) => from !== 'TDC').map(({ standard }) => standard));
  const standard = Math.hypot(without(intake), without(exhaust)) / 2;
  const lsa = (intake.value + exhaust.value) / 2;
  const { lobeSeparation } = context.card;
  const apart = lobeSeparation === null ? 0 : lsa - lobeSeparation;
  const single = context.build.description.body.engine.cams !== 'twin';
  return [
    makeView(
      'centreline',
      'both',
      {
        mean: lsa,
        spread: 0,
        count: 1,
        standard,
        expanded: NORMAL_95 * standard,
        budget: [],
      },
      {
        unit: 'cam degrees',
        key: 'lsa',
        title: single ? 'LSA as ground' : 'LSA as it stands',
        shows: `${computedDegrees(lsa)} cam`,
        detail: `ground-in advance ${computedDegrees(lsa - intake.value)}`,
        against: lobeSeparation === null ? null : `${plainDegrees(lobeSeparation)}° on the card`,
        proved: true,
        remark:
          lobeSeparation !== null && Math.abs(apart) > NORMAL_95 * standard + LSA_ROUNDED
            ? apartWords(apart, single)
            : null,
      },
    ),
  ];
}

/** @param apart how much wider than the card's they stand, cam degrees. */
function apartWords(apart: number, single: boolean): string {
  const found = `${computedDegrees(Math.abs(apart))} ${apart > 0 ? 'wider' : 'narrower'} than the card’s`;
  return single
    ? `${found}: moving a single cam cannot cure that. A reading is wrong, or the cam.`
    : `${found}: move the two cams against each other.`;
}

/** Cards print whole or half degrees, cam degrees. */
const LSA_ROUNDED = 0.5;
