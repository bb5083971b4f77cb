import type { Valve } from '../cam/card';
import { LEAN } from '../verdict/unknowns';
import { budgetOf } from '../statistics/coverage';
import type { Placed } from '../verdict/place-cam';
import type { Weighing } from '../verdict/weigh';

/** Where what the card means makes up so much of the variance, it is said. */
const MOSTLY = 0.4;

/**
 * What stands beside a verdict: what it rests on that no reading has shown, and which one would. Each a sentence.
 * @param lead the valve by which the cam is looked at.
 */
export function besideOf(
  weighing: Weighing,
  lead: Valve,
  { sources }: Placed,
  closing: 'none' | 'due' | 'same' | 'moved',
): string[] {
  const { evidence, layout } = weighing;
  const words: string[] = [];
  if (closing === 'due') words.push('That is so if nothing has moved since TDC: the closing check tells.');
  if (isOnePair(weighing, lead)) words.push('One pair alone shows no misreading.');
  const { ofCam } = layout.schools[lead];
  const printed = evidence.card.find((fact) => fact.of === 'centre' && fact.valve === lead);
  const open = printed?.of === 'centre' && (printed.means === 'unsaid' || printed.means === 'as-events');
  if (open && ofCam.drops && !ofCam.events)
    words.push(
      'If the card counts its centreline by the events, a leaning lobe shifts this by up to 2°: opening and closing, read once, would tell.',
    );
  const budget = budgetOf(sources);
  const whole = budget.reduce((sum, { standard }) => sum + standard ** 2, 0);
  const lean = budget.find(({ from }) => from === LEAN)?.standard ?? 0;
  if (ofCam.drops && ofCam.events && lean ** 2 > MOSTLY * whole)
    words.push(
      'It is that wide because it is not stated what the card’s centreline is the middle of. State it at Card.',
    );
  return words;
}

/** What has to be done before the cam is moved, since no reading shows what it would: each to stand after "First". */
export const firstOf = (weighing: Weighing, lead: Valve, closing: 'none' | 'due' | 'same' | 'moved'): string[] => [
  ...(isOnePair(weighing, lead) ? ['read the pair once more'] : []),
  ...(closing === 'due' ? ['make the closing check'] : []),
];

/** Does all that is known of this cam come from two readings of the wheel? */
function isOnePair({ evidence, layout }: Weighing, lead: Valve): boolean {
  const mine = evidence.observations.filter(
    (each) => each.kind !== 'peak-lift' && layout.of[each.valve].advance === layout.of[lead].advance,
  );
  return mine.length <= 2 && mine.every((each) => each.kind === 'flank' && each.standard === null);
}
