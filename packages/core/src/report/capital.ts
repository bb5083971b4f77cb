/** `capital('intake of cylinder 3')` is "Intake of cylinder 3". */
export const capital = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
