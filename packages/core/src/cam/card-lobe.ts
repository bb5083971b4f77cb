import { ADVERTISED_HEIGHT, type LobeCard, type TimingLine, type Valve, eventCentre, noseAt } from './card';
import type { Fact, CompletedLobe } from './completed-lobe';
import type { FigureKey } from './contradictions';
import { type FittedLobe, fitLobe } from './fit-lobe';

/** The lobe that the card describes, as far as it does. */
export function curveOf(
  valve: Valve,
  known: Omit<CompletedLobe, 'curve' | 'shape' | 'placed'>,
  printed: LobeCard,
  facts: ReadonlyMap<FigureKey, Fact>,
): FittedLobe | null {
  const { lines, lobeLift, valveLift, ratio, centreline } = known;
  const peak = lobeLift ?? valveLift;
  if (peak === null) return null;
  const lash = printed.lashHot ?? printed.lashCold ?? 0;
  const atLobe = (line: TimingLine): number | null => {
    const height = line.height ?? ADVERTISED_HEIGHT;
    if (line.at === 'lobe' || lobeLift === null) return height;
    return ratio === null ? null : (height + lash) / ratio;
  };
  const printedCentre = facts.get(`${valve}.centreline`)?.from === null;
  return fitLobe({
    peak,
    // A disputed centreline still says best where to draw it; whatever counts looks at `centreline`.
    nose:
      centreline === null || printedCentre
        ? printed.centreline === undefined
          ? undefined
          : noseAt(valve, printed.centreline)
        : undefined,
    durations: lines.flatMap((line) => {
      const height = atLobe(line);
      return line.duration === undefined || height === null ? [] : [{ height, duration: line.duration }];
    }),
    centres: [
      ...lines.flatMap((line) => {
        const height = atLobe(line);
        return line.opens === undefined || line.closes === undefined || height === null
          ? []
          : [{ height, centre: noseAt(valve, eventCentre(valve, line.opens, line.closes)) }];
      }),
      ...(centreline === null || printedCentre ? [] : [{ height: peak * 0.9, centre: noseAt(valve, centreline) }]),
    ],
  });
}
