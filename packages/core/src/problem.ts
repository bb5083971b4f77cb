/** Trouble that was to be expected: what does not fit, and what to do about it. A value, never thrown. */
export interface Problem {
  readonly message: string;
  readonly remedy: string;
}

/** What came of something that may fail: what it gives, or what is wrong. Every trouble that is to be expected has this form. */
export type Result<Given, Wrong> = ({ readonly ok: true } & Given) | ({ readonly ok: false } & Wrong);
/** Wrong is what does not fit at the engine, with what to do. */
export type Outcome<Given> = Result<Given, { readonly problem: Problem }>;
/** Wrong is what was typed or chosen: one sentence, shown beside it. */
export type Checked<Given> = Result<Given, { readonly message: string }>;

/** `problem('The two contacts are the same.', 'Read the second one again.')` */
export const problem = (message: string, remedy: string): Outcome<never> => ({
  ok: false,
  problem: { message, remedy },
});
