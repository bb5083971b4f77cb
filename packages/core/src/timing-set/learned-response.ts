import { type Hardware, type Setting, advanceOfSetting, tableOf } from './hardware';

/** A move that was measured: from where to where, and what the cam really did. Crank degrees of advance. */
export interface ObservedMove {
  readonly from: Setting;
  readonly to: Setting;
  readonly gave: number;
  /** Standard uncertainty of what it gave. */
  readonly standard: number;
  /** Minutes from the last reading before it to the last that shows what it gave; left out where that tells nothing. */
  readonly took?: number | undefined;
}

/** What a move will really give, crank degrees of advance, and its standard deviation. */
export interface Expected {
  readonly gives: number;
  readonly standard: number;
}

export interface Response {
  /** What it gives for each degree of its label, and how sure that is. */
  readonly response: number;
  readonly standard: number;
  /** Moves that it was learned from. */
  readonly learnedFrom: number;
  readonly expect: (from: Setting, to: Setting) => Expected;
}

/** How far an assembly falls otherwise than the one before though nothing was set otherwise, crank degrees, one standard deviation. From memory. */
export const ASSEMBLY_SCATTER = 0.2;

/**
 * What a piece of hardware gives, against its label. Its response r (1 where the label is right) and the error of each of its marks are unknowns with priors of its
 * kind; each measured move says r·(label to − label from) + error to − error from. Solved by the linear Gaussian update, move by move
 * (Kalman 1960, a published form of Bayesian least squares).
 * @example a mark 6 that gave 4.9 ± 0.3 is expected to give close to 4.9 the next time, and a mark 4 somewhat less than 4
 */
export function learnResponse(hardware: Hardware, moves: readonly ObservedMove[]): Response {
  const { trust } = tableOf(hardware);
  const label = (setting: Setting): number => advanceOfSetting(hardware, setting) ?? 0;
  const known = moves.filter(
    ({ from, to }) => advanceOfSetting(hardware, from) !== null && advanceOfSetting(hardware, to) !== null,
  );
  // Unknown 0 is the response; the others are marks that took part in a move. A figure on a scale is set anew each time: no mark to learn.
  const marks = [
    ...new Set(known.flatMap(({ from, to }) => [from, to].flatMap((each) => ('mark' in each ? [each.mark] : [])))),
  ];
  const size = 1 + marks.length;
  const mean = Float64Array.from({ length: size }, (_, at) => (at === 0 ? 1 : 0));
  const spread: Float64Array[] = Array.from({ length: size }, (_, at) => {
    const row = new Float64Array(size);
    row[at] = (at === 0 ? trust.response : trust.mark) ** 2;
    return row;
  });
  /** How a move leans on the unknowns, and the variance of what it leans on that no unknown stands for. */
  const leaning = (from: Setting, to: Setting): { readonly by: Float64Array; readonly own: number } => {
    const by = new Float64Array(size);
    by[0] = label(to) - label(from);
    let own = ASSEMBLY_SCATTER ** 2;
    for (const [setting, sign] of [
      [from, -1],
      [to, 1],
    ] as const) {
      const at = 'mark' in setting ? marks.indexOf(setting.mark) : -1;
      if (at >= 0) by[at + 1] = (by[at + 1] ?? 0) + sign;
      else own += trust.mark ** 2;
    }
    return { by, own };
  };
  const times = (by: Float64Array): Float64Array =>
    Float64Array.from(spread, (row) => row.reduce((sum, each, at) => sum + each * (by[at] ?? 0), 0));
  const dot = (a: Float64Array, b: Float64Array): number => a.reduce((sum, each, at) => sum + each * (b[at] ?? 0), 0);

  for (const { from, to, gave, standard } of known) {
    const { by, own } = leaning(from, to);
    const towards = times(by);
    const variance = dot(by, towards) + own + standard ** 2;
    const off = gave - dot(by, mean);
    for (let i = 0; i < size; i += 1) {
      mean[i] = (mean[i] ?? 0) + ((towards[i] ?? 0) * off) / variance;
      const row = spread[i];
      if (row)
        for (let j = 0; j < size; j += 1) row[j] = (row[j] ?? 0) - ((towards[i] ?? 0) * (towards[j] ?? 0)) / variance;
    }
  }
  return {
    response: mean[0] ?? 1,
    standard: Math.sqrt(Math.max(0, spread[0]?.[0] ?? 0)),
    learnedFrom: known.length,
    expect: (from, to) => {
      if (isSame(from, to)) return { gives: 0, standard: 0 };
      const { by, own } = leaning(from, to);
      return { gives: dot(by, mean), standard: Math.sqrt(Math.max(0, dot(by, times(by))) + own) };
    },
  };
}

export const isSame = (a: Setting, b: Setting): boolean =>
  'mark' in a ? 'mark' in b && a.mark === b.mark : 'at' in b && Math.abs(a.at - b.at) < 1e-9;
