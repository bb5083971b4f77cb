import type { Valve } from '../cam/card';
import { BACKLASH } from './methods/backlash';
import { BY_FEEL } from './methods/by-feel';
import { CENTRELINE } from './methods/centreline';
import { EVENTS } from './methods/events';
import { IDENTITY } from './methods/identity';
import { LIFT_AT_TDC } from './methods/lift-at-tdc';
import { OPENING_ONLY } from './methods/opening-only';
import { TRACE } from './methods/trace';
import type { ReadMethod } from './methods/read-method';

export type { Flank, ReadMethod, Slot } from './methods/read-method';

/** Every way of reading the cam, in the order in which they are offered. A new one is a file of its own and a line here. */
export const READ_METHODS = {
  centreline: CENTRELINE,
  events: EVENTS,
  'opening-only': OPENING_ONLY,
  'by-feel': BY_FEEL,
  'lift-at-tdc': LIFT_AT_TDC,
  identity: IDENTITY,
  trace: TRACE,
  backlash: BACKLASH,
} as const satisfies Readonly<Record<string, ReadMethod>>;

/** How the cam is measured. */
export type ReadMethodName = keyof typeof READ_METHODS;
/** A method by its name, as any of them. */
export const readMethod = (name: ReadMethodName): ReadMethod => READ_METHODS[name];
export const READ_METHOD_NAMES = Object.keys(READ_METHODS) as [ReadMethodName, ...ReadMethodName[]];

/** Methods that say where the cam sits; the shop may make one of them its rule. */
export const RULING_METHODS = ['centreline', 'events', 'opening-only', 'lift-at-tdc', 'trace'] as const;
export type RulingMethod = (typeof RULING_METHODS)[number];

/** What is known of the engine when a method is to be chosen. */
export interface CamAtHand {
  readonly wheel: boolean;
  readonly lifter: 'solid' | 'hydraulic' | 'roller' | 'bucket' | 'none';
  readonly springs: 'checking' | 'valve' | 'none' | null;
}

export interface ReadProposal {
  readonly method: ReadMethodName;
  readonly why: string;
}

/** Will what the indicator sits on follow the lobe down? A roller lifter without its spring stays up; a hydraulic one bleeds down. */
export const followsDown = ({ lifter, springs }: CamAtHand): boolean =>
  !(springs === 'none' && (lifter === 'roller' || lifter === 'hydraulic')) &&
  !(lifter === 'hydraulic' && springs === 'valve');

/**
 * The method that fits: what the engine forbids goes before the shop's rule.
 * @param rule the shop's own, or null.
 * @param hasLiftAtTdc does the card give the lift at TDC?
 */
export function proposeReading(at: CamAtHand | null, rule: RulingMethod | null, hasLiftAtTdc: boolean): ReadProposal {
  if (at && !at.wheel && hasLiftAtTdc)
    return { method: 'lift-at-tdc', why: 'There is no wheel, and the card gives the lift at TDC.' };
  const ruled = rule !== null && (!at || !READ_METHODS[rule].followsDown || followsDown(at)) ? rule : null;
  if (ruled && (ruled !== 'lift-at-tdc' || hasLiftAtTdc)) return { method: ruled, why: 'The rule of the shop.' };
  if (at && !followsDown(at))
    return {
      method: 'opening-only',
      why:
        at.lifter === 'hydraulic'
          ? 'A hydraulic lifter bleeds down under a valve spring: make it solid, measure at the lobe, or read the opening side only.'
          : 'Without a spring the lifter does not follow the lobe down: only the opening side can be read.',
    };
  return { method: 'centreline', why: READ_METHODS.centreline.why };
}

/** The words of a slot. `{at}` is the height in words; `{valve}` and `{on}` what the indicator is at. */
export const slotWords = (
  text: string,
  put: { readonly at: string; readonly valve: Valve; readonly on: string },
): string => text.replaceAll('{at}', put.at).replaceAll('{valve}', put.valve).replaceAll('{on}', put.on);
