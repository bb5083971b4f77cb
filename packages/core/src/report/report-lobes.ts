import { type ComparedFigure, type LobePlan, type LobeTable, lobesThatDiffer } from '../findings/derive-lobes';
import type { Valve } from '../cam/card';
import { computedDegrees } from '../units/degrees';
import { type LengthUnit, formatComputedLength } from '../units/length';
import type { Report } from './report-schema';

type Told = Report['trials'][number]['everyLobe'];

/** The lobes of a trial beside each other, as the Report has them. */
export const reportLobes = (tables: readonly LobeTable[], units: LengthUnit): Told =>
  tables.map((table) => ({
    ...table,
    rows: table.rows.map(({ cylinder, lift, centreline }) => ({
      cylinder,
      lift: lift && { ...lift, shows: formatComputedLength(lift.value, units) },
      centreline: centreline && { ...centreline, shows: computedDegrees(centreline.value) },
    })),
    words: tableWords(table, units),
    differs: table.uneven !== null || lobesThatDiffer(table).length > 0,
  }));

function tableWords({ valve, at, uneven, usual, printed, rows }: LobeTable, units: LengthUnit): string[] {
  const words: string[] = [];
  const length = (mm: number): string => formatComputedLength(Math.abs(mm), units);
  const where = at === 'valve' ? `${valve} valve` : `${valve} lobe`;
  for (const { cylinder, lift } of rows) {
    if (lift === null || (lift.state !== 'differs' && lift.state !== 'perhaps')) continue;
    const said = `The ${where} of cylinder ${cylinder} lifts ${length(lift.apart)} ${lift.apart < 0 ? 'less' : 'more'} than the others (±${length(lift.expanded)})`;
    if (lift.state === 'perhaps') words.push(`${said}, at the edge of what can be read: read it once more.`);
    else if (lift.apart > 0) words.push(`${said}: another lobe, or the indicator slipped. Read it once more.`);
    else
      words.push(
        at === 'valve'
          ? `${said}: a worn lobe or lifter, another rocker, or more lash. Measure it at the lifter.`
          : `${said}: worn. Look at lobe and lifter.`,
      );
  }
  for (const { cylinder, centreline } of rows) {
    if (centreline === null || (centreline.state !== 'differs' && centreline.state !== 'perhaps')) continue;
    words.push(centreWords(valve, cylinder, centreline));
  }
  if (uneven !== null)
    words.push(
      `The ${valve} lifts differ among themselves by up to ${length(uneven)}, more than readings do, and none stands alone: read them once more. If it stays, several are worn or were ground unequally.`,
    );
  const several = rows.filter(({ lift }) => lift !== null).length;
  if (words.length === 0 && usual !== null && several > 1)
    words.push(
      `${several} ${valve} lifts, all alike${printed === null ? '' : `: ${length(usual)}, ${length(printed)} on the card`}.`,
    );
  return words;
}

/** A later intake has the larger centreline, a later exhaust the smaller one. */
function centreWords(valve: LobeTable['valve'], cylinder: number, { apart, expanded, state }: ComparedFigure): string {
  const isLate = valve === 'intake' ? apart > 0 : apart < 0;
  const said = `The ${valve} centreline of cylinder ${cylinder} stands ${computedDegrees(Math.abs(apart))} ${isLate ? 'later, retarded,' : 'earlier, advanced,'} against the others (±${computedDegrees(expanded)})`;
  return state === 'perhaps'
    ? `${said}, at the edge of what can be read: read it once more.`
    : `${said}: read it once more. If it stays, the lobe was ground there or the camshaft is twisted.`;
}

/** Which lobe comes next, in words for the hands. */
export function reportLobePlan({ next, read, all }: LobePlan): Report['read']['everyLobe'] {
  return {
    next: next && { ...next.lobe, turn: next.turn },
    read,
    all,
    sentence: next ? lobeSentence(next.lobe, next.turn) : `All ${all} lobes are read.`,
  };
}

/**
 * What the hands do for one lobe.
 * @param turn from where the crank stands to its peak, crank degrees; null where that is not known.
 */
export function lobeSentence(
  { cylinder, valve }: { readonly cylinder: number; readonly valve: Valve },
  turn: number | null,
): string {
  const on =
    turn === null ? 'turn to its peak' : `turn on, about ${computedDegrees(5 * Math.round(turn / 5), 0)}, to its peak`;
  return `Cylinder ${cylinder}, ${valve}: put the indicator on it, zero it on the base circle, ${on}. Read the indicator.`;
}
