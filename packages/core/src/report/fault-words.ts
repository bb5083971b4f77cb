import { EVENT_NAMES, type Valve } from '../cam/card';
import { computedDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength } from '../units/length';
import { FAULTS } from '../verdict/faults';
import type { PrintedAngle } from '../verdict/observations';
import type { FaultFinding } from '../verdict/verdict';
import type { Speech } from './speech';

/** What is to be done where something has moved since TDC was proved. */
export const AFTER_MOVED =
  'Find TDC again, then repeat what was read since: nothing says which readings it took with it.';

/** @param by crank degrees. */
export const movedWords = (by: number): string =>
  `the wheel or the pointer has moved by ${computedDegrees(Math.abs(by))} since TDC was proved`;

/** What tells whether it happened. */
export const checkOf = ({ fault, seen }: FaultFinding): string => (seen ? AFTER_MOVED : FAULTS[fault].check);

/** A fault in words, to stand after "most likely": what it was, at which readings, by how much. */
export function faultWords(found: FaultFinding, { label, units }: Speech): string {
  const { fault, seen, entries, valve, amount, printed } = found;
  if (seen) return movedWords(amount ?? 0);
  const { words } = FAULTS[fault];
  const labels = entries.flatMap((entry) => label(entry) ?? []);
  const own = OWN_WORDS[fault]?.({ words, amount: amount ?? 0, valve, first: labels[0] ?? '', units, printed });
  if (own !== undefined) return own;
  if (labels.length > 0 && labels.length <= 2) return `${words} (${labels.join(', ')})`;
  return valve ? `${words} (${labels.length} of the ${valve})` : words;
}

interface FaultParts {
  readonly words: string;
  readonly amount: number;
  readonly valve: Valve | null;
  /** The first reading that it concerns. */
  readonly first: string;
  readonly units: LengthUnit;
  readonly printed: FaultFinding['printed'];
}

/** `figureWords({ of: 'opening', valve: 'exhaust', … })` is "EVO". */
function figureWords(fact: PrintedAngle): string {
  switch (fact.of) {
    case 'centre':
      return EVENT_NAMES[fact.valve].centreline;
    case 'opening':
      return EVENT_NAMES[fact.valve].opens;
    case 'closing':
      return EVENT_NAMES[fact.valve].closes;
    case 'duration':
      return `${fact.valve} duration`;
    case 'separation':
      return 'LSA';
    case 'ground-in':
      return 'ground-in advance';
  }
}

/** Faults that say more than what they are and where. */
const OWN_WORDS: Partial<Record<FaultFinding['fault'], (of: FaultParts) => string>> = {
  'wheel-slipped': ({ amount, first }) =>
    `the wheel or the pointer moved by ${computedDegrees(Math.abs(amount))}, before the reading “${first}”`,
  'tdc-not-proved': ({ words, amount }) => `${words}, by ${computedDegrees(Math.abs(amount))}`,
  'tooth-out': ({ words, amount }) => `${words}: ${computedDegrees(Math.abs(amount))}`,
  'lsa-off': ({ amount }) =>
    `the lobes are ground ${computedDegrees(Math.abs(amount) / 2)} of the cam ${amount > 0 ? 'closer together' : 'further apart'} than the card says`,
  'worn-lobe': ({ valve, amount, units }) =>
    `${valve ? `the ${valve} lobe is` : 'both lobes are'} worn by ${formatComputedLength(Math.abs(amount), units)}`,
  'card-figure': ({ words, amount, printed }) =>
    printed
      ? `the card’s ${figureWords(printed)} is wrong by about ${computedDegrees(Math.abs(amount))}: misprinted, or typed wrong`
      : words,
  'bleed-down': ({ valve }) => (valve ? `the ${valve} lifter bleeds down` : 'both lifters bleed down'),
  sticking: ({ valve }) =>
    valve
      ? `the ${valve} lifter sticks and does not follow its lobe down`
      : 'both lifters stick and do not follow their lobes down',
};

/** A fault as the Report lists it. */
export interface ToldFault extends Pick<FaultFinding, 'fault' | 'better' | 'entries'> {
  readonly words: string;
  readonly check: string;
}

export const tellFault = (found: FaultFinding, speech: Speech): ToldFault => ({
  fault: found.fault,
  words: faultWords(found, speech),
  check: checkOf(found),
  better: found.better,
  entries: found.entries,
});
