import { ZERO_METHODS, type ZeroMethodName, goesOnward } from './zero-methods';

/** What is there to work with. */
export interface AtHand {
  readonly head: 'on' | 'off';
  /** Is the plug hole in line with the bore, so that a stop through it meets the piston? */
  readonly plugHole: boolean;
  readonly wheel: boolean;
  readonly indicator: boolean;
  /** Must it not be turned back: a belt that would jump, an accessory drive that slips? */
  readonly oneWay: boolean;
}

export interface ZeroProposal {
  readonly method: ZeroMethodName;
  readonly why: string;
  /** The others that the engine allows, best first. */
  readonly others: readonly ZeroMethodName[];
}

/** Best first. A firm stop is quickest and as good as any; what is good for a look only comes last. */
const PREFERRED: readonly ZeroMethodName[] = [
  'positive-stop',
  'plug-stop',
  'equal-drop',
  'rim-marks',
  'dropped-valve',
  'pushed-valve',
  'stop-zeroed',
  'soft-stop',
  'first-stop',
];

/** Does the engine, as it stands, allow the method? With the head off a bar serves where a plug hole would. */
export function allowsMethod(name: ZeroMethodName, at: AtHand): boolean {
  const { needs } = ZERO_METHODS[name];
  const headFits = needs.head === 'any' || needs.head === at.head;
  const stopFits = !needs.plugHole || at.head === 'off' || at.plugHole;
  const readFits = needs.readBy === 'either' || (needs.readBy === 'wheel') === at.wheel;
  const turnFits = !at.oneWay || goesOnward(name);
  return headFits && stopFits && readFits && turnFits && (!needs.indicator || at.indicator);
}

/**
 * The method to use, and why.
 * @param rule the shop's own rule, which wins wherever the engine allows it.
 * @returns null when nothing can be done with what is there.
 * @example proposeZero({ head: 'on', plugHole: true, wheel: false, indicator: false, oneWay: false })?.method // 'rim-marks'
 */
export function proposeZero(at: AtHand, rule: ZeroMethodName | null = null): ZeroProposal | null {
  const allowed = PREFERRED.filter((name) => allowsMethod(name, at));
  const ruled = rule !== null && allowed.includes(rule);
  const method = ruled ? rule : allowed[0];
  if (!method) return null;
  return {
    method,
    why: ruled ? `Your shop’s rule. ${ZERO_METHODS[method].why}` : ZERO_METHODS[method].why,
    others: allowed.filter((name) => name !== method),
  };
}
