import { type Outcome, problem } from '../problem';
import { type CrankDeg, crankDeg, wrap180, wrap360 } from '../units/angle';

const CYCLE = 720;

/** When each cylinder fires. `angles`: crank degrees after the first of the order, in its order; left out for even firing. */
export interface Firing {
  readonly order: readonly number[];
  readonly angles?: readonly number[] | undefined;
}

/**
 * Checks the firing angles of an odd-fire engine.
 * @param angles crank degrees after the first cylinder of the order: the first is 0, each more than the one before, all under 720.
 */
export function checkFiringAngles(angles: readonly number[], cylinders: number): Outcome<object> {
  if (angles.length !== cylinders)
    return problem(
      `There are ${angles.length} firing angles for ${cylinders} cylinders.`,
      'Give one for each cylinder.',
    );
  if (angles[0] !== 0) return problem('The first cylinder fires at 0.', 'Count the others from it.');
  const at = angles.findIndex((angle, i) => i > 0 && !(angle > (angles[i - 1] ?? 0)));
  if (at > 0)
    return problem(`Firing angle ${at + 1} is not more than the one before.`, 'Give them in the firing order.');
  if (!((angles.at(-1) ?? 0) < CYCLE))
    return problem('A firing angle is 720 or more.', 'The whole cycle is 720 crank degrees.');
  return { ok: true };
}

/** When each cylinder's firing TDC comes, crank degrees after cylinder 1's, in [0, 720), in the order of the firing order. */
export function firingTdcs({
  order,
  angles,
}: Firing): readonly { readonly cylinder: number; readonly after: CrankDeg }[] {
  const raw = order.map((cylinder, at) => ({ cylinder, at: angles?.[at] ?? (CYCLE / order.length) * at }));
  const first = raw.find(({ cylinder }) => cylinder === 1)?.at ?? 0;
  return raw.map(({ cylinder, at }) => ({ cylinder, after: crankDeg((at - first + CYCLE) % CYCLE) }));
}

const SAME = 1e-6;

/**
 * The cylinder that fires exactly 360° away from another: its valves rock while the other one fires.
 * @returns null where there is none, as with odd counts and most odd-fire engines; then only the cylinder's own valves decide.
 * @example companion({ order: [1, 5, 3, 6, 2, 4] }, 1) // 6
 */
export function companion(firing: Firing, cylinder = 1): number | null {
  const tdcs = firingTdcs(firing);
  const own = tdcs.find((each) => each.cylinder === cylinder);
  if (!own) return null;
  return tdcs.find(({ after }) => Math.abs(Math.abs(after - own.after) - 360) < SAME)?.cylinder ?? null;
}

/** What is seen of two valves near TDC. Rocking: the exhaust just closing, the intake just opening. */
export type ValvesSeen = 'rocking' | 'both-closed';

/**
 * Which TDC cylinder 1 stands at.
 * @param looked whose valves were looked at: cylinder 1's own, or its companion's, which rock while cylinder 1 fires.
 * @example whichTdc('own', 'rocking') // 'overlap'
 * Source: the four-stroke cycle; common practice, no source.
 */
export const whichTdc = (looked: 'own' | 'companion', seen: ValvesSeen): 'overlap' | 'firing' =>
  (looked === 'own') === (seen === 'rocking') ? 'overlap' : 'firing';

/** Where on a wheel set to cylinder 1's TDC another cylinder's top stands, ring position in [0, 360). */
export const topOnWheel = (after: number): CrankDeg => wrap360(wrap180(after));
