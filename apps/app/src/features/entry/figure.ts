import { sideWords } from '@yosoku/core/crank/wheel';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import type { ReadingEntry } from './use-reading-entry';

/** The big figure in the middle of the wheel and the word under it: what is being typed, else what was recorded last. */
export function figureOf(
  entry: ReadingEntry,
  recorded: string | null,
): { readonly figure: string; readonly word: string } {
  const { draft, state } = entry;
  const word = draft.side ? sideWords(draft.side) : '';
  if (state.state === 'whole') return { figure: wheelDegrees(state.reading.shows), word };
  if (state.state === 'sideless') return { figure: wheelDegrees(state.shows), word: 'before or after?' };
  if (state.state === 'wrong') return { figure: draft.text, word: 'not on this ring' };
  if (recorded === null) return { figure: '', word: word || 'type the reading' };
  const [figure = '', ...rest] = recorded.split(' ');
  return { figure, word: rest.join(' ') };
}
