import type { Mark } from './drawing';

/** The squares of a QR code. Whoever prints makes them, so that the core stays without a library for it. */
export interface QrCode {
  readonly size: number;
  readonly isDark: (row: number, column: number) => boolean;
}

/** A code as filled squares, its corner at a place; a run of dark ones in a row is one shape. */
export function qrMarks(code: QrCode, x: number, y: number, wide: number): Mark[] {
  const each = wide / code.size;
  const marks: Mark[] = [];
  for (let row = 0; row < code.size; row += 1)
    for (let from = 0; from < code.size; from += 1) {
      if (!code.isDark(row, from)) continue;
      let to = from;
      while (to + 1 < code.size && code.isDark(row, to + 1)) to += 1;
      const [left, right] = [x + from * each, x + (to + 1) * each];
      const [top, bottom] = [y + row * each, y + (row + 1) * each];
      marks.push({
        kind: 'shape',
        fill: true,
        points: [
          [left, top],
          [right, top],
          [right, bottom],
          [left, bottom],
        ],
      });
      from = to;
    }
  return marks;
}
