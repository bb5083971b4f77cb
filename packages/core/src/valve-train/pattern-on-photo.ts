import { type Outcome, problem } from '../problem';

/** A place on a photo, in its own pixels. */
export type PhotoPlace = readonly [x: number, y: number];

/** What was touched on a photo of a valve tip, each pair the edge toward the rocker’s pivot first: the edges of the tip, those of the pattern. */
export type PatternMarks = readonly [tip: PhotoPlace, tipFar: PhotoPlace, pattern: PhotoPlace, patternFar: PhotoPlace];

/** Lengths mm. */
export interface PatternOnPhoto {
  readonly width: number;
  /** The middle of the pattern from that of the tip, positive away from the pivot. */
  readonly offset: number;
  /** Half-width of 95 % of the width, by the touches alone. */
  readonly expanded: number;
}

/** Marks that lie nearer together than this tell nothing, pixels. */
const LEAST = 20;
/** A pattern as long as this share of the tip and more runs over its edge, or its edges were not the ones that were touched. */
const OVER = 1.05;

/**
 * Width and place of a pattern, by four touches on a photo and the known diameter of the tip. All is measured along the line through the
 * first two: a camera held askew shortens both alike along it.
 * @param tip its diameter, mm.
 * @param touched how well a mark was put, pixels of the photo, one standard deviation.
 * @example patternOnPhoto([[100, 500], [900, 500], [400, 480], [560, 520]], 8, 3) // { width: 1.6, offset: -0.2, expanded: 0.08 }
 * Source: two lengths in one plane and one direction keep their ratio under any distant camera (geometry).
 */
export function patternOnPhoto(
  [from, to, near, far]: PatternMarks,
  tip: number,
  touched: number,
): Outcome<{ readonly found: PatternOnPhoto }> {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const long = Math.hypot(dx, dy);
  if (long < LEAST)
    return problem('Both edges of the tip stand in one place.', 'Touch one edge of the tip, and then the other.');
  const along = ([x, y]: PhotoPlace): number => (((x - from[0]) * dx + (y - from[1]) * dy) / long) * (tip / long);
  const [begins, ends] = [along(near), along(far)];
  const width = ends - begins;
  if (width <= 0)
    return problem(
      'The pattern was touched the other way round than the tip.',
      'Each time the edge toward the pivot first.',
    );
  if (width > OVER * tip || begins < tip - OVER * tip || ends > OVER * tip)
    return problem(
      'The pattern lies beyond the tip.',
      'Touch the edges of the tip again, and then those of the pattern.',
    );
  const mm = touched * (tip / long);
  // Two touches of the pattern, and two of the tip that stretch it.
  const standard = Math.SQRT2 * mm * Math.hypot(1, width / tip);
  return {
    ok: true,
    found: { width, offset: (begins + ends) / 2 - tip / 2, expanded: 2 * standard },
  };
}
