/** Points on a dial. `clockwise` in degrees from straight up, `radius` in the picture's own units, centre at 0,0. */
export function polar(radius: number, clockwise: number): readonly [number, number] {
  const angle = (clockwise * Math.PI) / 180;
  return [radius * Math.sin(angle), -radius * Math.cos(angle)];
}

const point = (radius: number, clockwise: number): string =>
  polar(radius, clockwise)
    .map((each) => each.toFixed(2))
    .join(' ');

/** A straight stroke from one radius to another, as an SVG path. */
export const stroke = (inner: number, outer: number, clockwise: number): string =>
  `M${point(inner, clockwise)}L${point(outer, clockwise)}`;

/** An arc drawn clockwise from one angle over `sweep` degrees (negative: counter-clockwise), as an SVG path. */
export function arc(radius: number, from: number, sweep: number): string {
  const large = Math.abs(sweep) > 180 ? 1 : 0;
  const direction = sweep >= 0 ? 1 : 0;
  return `M${point(radius, from)}A${radius} ${radius} 0 ${large} ${direction} ${point(radius, from + sweep)}`;
}

/** The band between two radii over an arc, as a closed SVG path. */
export function band(inner: number, outer: number, from: number, sweep: number): string {
  const large = Math.abs(sweep) > 180 ? 1 : 0;
  const direction = sweep >= 0 ? 1 : 0;
  return (
    `M${point(outer, from)}A${outer} ${outer} 0 ${large} ${direction} ${point(outer, from + sweep)}` +
    `L${point(inner, from + sweep)}A${inner} ${inner} 0 ${large} ${1 - direction} ${point(inner, from)}Z`
  );
}
