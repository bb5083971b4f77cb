/** Trouble that was to be expected: what does not fit, and what to do about it. A value, never thrown. */
export interface Problem {
  readonly message: string;
  readonly remedy: string;
}

export type Outcome<T> = ({ readonly ok: true } & T) | { readonly ok: false; readonly problem: Problem };

/** `problem('The two contacts are the same.', 'Read the second one again.')` */
export const problem = (message: string, remedy: string): { readonly ok: false; readonly problem: Problem } => ({
  ok: false,
  problem: { message, remedy },
});
