import type { Station } from '../record/entries/stations';

/** What a good colleague would say now, and where it is done: at the engine, or at a station. */
export interface Advice {
  readonly sentence: string;
  readonly at: 'engine' | Station | 'done';
}

export const atEngine = (sentence: string): Advice => ({ sentence, at: 'engine' });
