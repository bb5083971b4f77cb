import type { Valve } from '../cam/card';
import type { BodyOf } from '../record/entry';
import { MM_PER_INCH } from '../units/length';
import { type Bench, oneOf, printed } from './bench';
import { type GroundLobe, groundFlanks, groundLift } from './ground-lobe';
import type { Convention } from './scenario';

/** The height that events are read and printed at, and the drop of a centreline, mm. */
export const CHECKING = 0.05 * MM_PER_INCH;
const LIFT_STEP = 0.001 * MM_PER_INCH;

export type Lobes = Readonly<Record<Valve, GroundLobe>>;

/** What the builder has to compare with. Crank degrees. */
export interface Printed {
  readonly card: { readonly [key in Valve]?: BodyOf<'card.entered'>['intake'] };
  /** The centreline of the intake that is wanted where there is no card. */
  readonly wantedCentre: number;
  /** The centre of a lobe as this card, or whoever wants it, counts: of the cam on its card. */
  readonly centreOf: (valve: Valve) => number;
}

/** The middle of both flanks of a lobe that high. */
export const middleOf = (lobe: GroundLobe, lift: number): number => {
  const { opening, closing } = groundFlanks(lobe, lift);
  return (opening + closing) / 2;
};

/** Writes the card of these lobes, or a target alone, into the logbook. */
export function printCard(
  { random, scenario, mishap, limit, write }: Bench,
  lobes: Lobes,
  convention: Convention,
): Printed {
  const centreOf = (valve: Valve): number =>
    middleOf(lobes[valve], convention === 'nose' ? lobes[valve].peak - CHECKING : CHECKING);
  const cardStep = oneOf(random, [1, 0.5]);
  const printedCentre = (valve: Valve): number =>
    Math.abs(printed(centreOf(valve), cardStep)) + (valve === 'intake' ? (mishap.misprint ?? 0) : 0);
  const eventsOf = (valve: Valve) => {
    const { opening, closing } = groundFlanks(lobes[valve], CHECKING);
    return valve === 'intake'
      ? { opens: Math.round(-opening), closes: Math.round(closing - 180) }
      : { opens: Math.round(-180 - opening), closes: Math.round(closing) };
  };
  const liftsAtTdc = (valve: Valve) =>
    [-2, 2].map((by) => {
      const lobe = { ...lobes[valve], nose: lobes[valve].nose + (valve === 'intake' ? by : -by) };
      return { centreline: printedCentre(valve) + by, lift: printed(groundLift(lobe, 0), LIFT_STEP) };
    });
  const lobeOf = (valve: Valve): BodyOf<'card.entered'>['intake'] => ({
    lobeLift: printed(lobes[valve].peak, LIFT_STEP),
    ...(scenario.card === 'centres' || scenario.card === 'both' ? { centreline: printedCentre(valve) } : {}),
    ...(scenario.card === 'events' || scenario.card === 'both'
      ? { timing: [{ height: CHECKING, at: 'lobe', ...eventsOf(valve) }] }
      : {}),
    ...(scenario.catalogue ? { liftAtTdc: liftsAtTdc(valve) } : {}),
  });
  const card = { intake: lobeOf('intake'), exhaust: lobeOf('exhaust') };
  const wantedCentre = printed(centreOf('intake'), 0.5);
  if (scenario.card === 'none') {
    write('target.set', { replaces: null, target: { kind: 'centreline', centreline: wantedCentre }, limit });
  } else {
    write('card.entered', { replaces: null, ...card });
    write('target.set', { replaces: null, target: { kind: 'card' }, limit });
  }
  return { card, wantedCentre, centreOf };
}
