import { MM_PER_INCH } from '@yosoku/core/units/length';
import { type WheelReading, sideWords } from '@yosoku/core/crank/wheel';
import { decimal } from '@yosoku/core/units/decimal';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import type { ReadingDraft, DraftReading } from './reading-draft';

/** The big figure in the middle of the wheel and the word under it: what is being typed, else what was recorded last. */
export function figureOf(
  entry: { readonly draft: ReadingDraft; readonly state: DraftReading },
  recorded: string | null,
): { readonly figure: string; readonly word: string } {
  const { draft, state } = entry;
  const word = draft.side ? sideWords(draft.side) : '';
  if (state.state === 'whole') return { figure: figureText(state.reading), word };
  if (state.state === 'sideless') return { figure: draft.text, word: 'before or after?' };
  if (state.state === 'wrong') return { figure: draft.text, word: 'not on this ring' };
  if (recorded === null) return { figure: '', word: word || 'type the reading' };
  const [figure = '', ...rest] = recorded.split(' ');
  return { figure, word: rest.join(' ') };
}

/** A whole reading for the middle of the wheel. */
export const figureOfReading = (reading: WheelReading): { readonly figure: string; readonly word: string } => ({
  figure: figureText(reading),
  word: reading.ring === '0-360' ? '' : sideWords(reading.side),
});

/** The figure alone: degrees as on a wheel, or a length as on a tape. */
function figureText(reading: WheelReading): string {
  if (reading.ring !== 'rim') return wheelDegrees(reading.shows);
  return decimal(reading.unit === 'in' ? reading.shows / MM_PER_INCH : reading.shows, reading.unit === 'in' ? 2 : 1);
}
