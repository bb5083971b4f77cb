/** A figure with a sign, as it is typed or stamped: "−2.5", "+4", "1,5". NaN where it is none, or nothing stands there. */
export function typedFigure(typed: string): number {
  const text = typed.trim().replace('−', '-').replace(',', '.').replace(/^\+/, '');
  return text === '' ? NaN : Number(text);
}
