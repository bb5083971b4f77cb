import { readOff } from '../findings/derive-zero';
import { type TdcSide, turnWords } from '../tdc/zero-methods';
import type { Report } from './report-schema';

/**
 * What the hands do next at Zero, for the side that the builder has turned to and the figure that he has chosen: neither is in the logbook yet.
 * @param figure of the indicator, in words; null where the method has none, or none is chosen.
 */
export function readingSentence(
  { method, ring, state, step, sentence }: Report['zero'],
  side: TdcSide,
  figure: string | null,
): string {
  if (method === null) return sentence;
  const proving = state === 'set' && step.does === 'read' && step.pass === null && step.side === side;
  return `${proving ? 'Now prove it. ' : ''}${turnWords(method, side, figure)} ${readOff(ring)}`;
}
