/** What became of a reading: it helped, it was taken from the wrong side, it was misread, or something on the engine spoiled it. */
export type Judgement = 'helped' | 'wrong-side' | 'misread' | 'spoiled';

export interface Found {
  readonly judgement: Judgement;
  readonly words: string;
}

export const HELPED: Found = { judgement: 'helped', words: 'Read as it stood.' };
