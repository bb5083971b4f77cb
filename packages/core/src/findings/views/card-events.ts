import { type Valve, closesAsPrinted, opensAsPrinted } from '../../cam/card';
import type { CompletedLobe } from '../../cam/completed-lobe';
import { flanksAt } from '../../cam/lobe';
import { eventWords } from '../../cam/timing-line';
import type { SitsOn } from '../readings/read-rounds';

/**
 * The card's events at a height, or those of its lobe where it prints none, as printed; and which of both. null where it says neither.
 * @param atLobe the same height at the lobe, mm.
 */
export function eventsOfCard(lobe: CompletedLobe, valve: Valve, height: number, sitsOn: SitsOn, atLobe: number) {
  const at = sitsOn === 'valve' ? 'valve' : 'lobe';
  const line = lobe.lines.find(
    (each) => each.at === at && each.height !== null && Math.abs(each.height - height) < 1e-6,
  );
  if (line?.opens !== undefined && line.closes !== undefined)
    return { opens: line.opens, closes: line.closes, fitted: false };
  if (lobe.curve === null || lobe.shape !== 'full' || lobe.centreline === null) return null;
  const flanks = flanksAt(lobe.curve, atLobe);
  return (
    flanks && {
      opens: opensAsPrinted(valve, flanks.opening),
      closes: closesAsPrinted(valve, flanks.closing),
      fitted: true,
    }
  );
}

/** What is said where the card's lobe had to stand in for its events. */
export const FITTED = 'The card prints no events at this height: compared with a lobe fitted through it.';

/** A measured event, to a hundredth, with its side. */
export const eventFigure = (value: number, valve: Valve, which: 'opens' | 'closes'): string =>
  eventWords(Math.round(value * 100) / 100, valve, which);
