/** A figure with a sign, as it is typed or stamped: "−2.5", "+4", "1,5". NaN where it is none, or nothing stands there. */
export function typedFigure(typed: string): number {
  const text = typed.trim().replace('−', '-').replace(',', '.').replace(/^\+/, '');
  return text === '' ? NaN : Number(text);
}

/** Degrees as typed, from 0 to the most that there is room for; null where there are none, or they do not fit. */
export function typedAngleOf(text: string, most: number): number | null {
  const angle = typedFigure(text);
  return angle >= 0 && angle <= most ? angle : null;
}
