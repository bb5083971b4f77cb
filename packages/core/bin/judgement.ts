import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { type Family, FAMILIES } from '../src/judgement/ground-lobe';
import type { Convention } from '../src/judgement/scenario';
import { type Tally, tally } from '../src/judgement/tally';
import { findable, tellable } from '../src/judgement/tellable';
import { FAR_LEANS, MISHAPS, SCENARIOS } from '../src/judgement/what-is-done';

/**
 * Writes docs/judgement.md: what the Report says of jobs done on engines that owe nothing to the product's own likeness of lobes, readers and cards.
 * `npm run judgement -- 400` does 400 jobs a cell, a few minutes. A second figure begins elsewhere in the stream of random numbers, a
 * third word names another file.
 */

const COUNT = Number(process.argv[2] ?? 400);
const SEED = Number(process.argv[3] ?? 1);
const TO = path.resolve(process.argv[4] ?? path.join(import.meta.dirname, '../../../docs/judgement.md'));
const CONVENTIONS: readonly Convention[] = ['nose', 'event'];
const STEPS = [1, 0.5, 0.25] as const;
/** Healthy jobs that the best of judges have seen: a rough table asks for less. */
const LEARNT = Math.min(2000, 200 + 5 * COUNT);

const percent = (share: number): string =>
  Number.isNaN(share) ? '–' : `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;
const degrees = (value: number): string => (Number.isNaN(value) ? '–' : `${value.toFixed(2)}°`);
const row = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
const table = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  [row(heads), row(heads.map(() => '---')), ...rows.map(row)].join('\n');

let seed = SEED * 1_000_003;
const next = (): number => (seed += 7_919_009);
const cells = (of: Tally): string[] => [
  percent(of.silent),
  percent(of.covered),
  percent(of.coveredOwn),
  `±${degrees(of.width)}`,
  degrees(of.rms),
  degrees(of.rmsPlain),
  percent(of.accused),
  percent(of.nagged),
  percent(of.naggedForNothing),
  percent(of.tdcCovered),
  `±${degrees(of.tdcWidth)}`,
];
const HEADS = [
  'no figure',
  'covered',
  'in its own school',
  'width',
  'RMS',
  'RMS of plain arithmetic',
  'accused',
  'measure again',
  'for nothing',
  'TDC covered',
  'TDC',
];

const byReader = SCENARIOS.flatMap((scenario) =>
  CONVENTIONS.flatMap((convention) =>
    STEPS.map((step) => [
      scenario.name,
      convention,
      `${step}°`,
      ...cells(tally({ scenario, convention, step, families: FAMILIES, count: COUNT, seed: next() })),
    ]),
  ),
);
const byFamily = SCENARIOS.flatMap((scenario) =>
  FAMILIES.map((family: Family) => [
    scenario.name,
    family,
    ...cells(tally({ scenario, convention: 'nose', step: 0.5, families: [family], count: COUNT, seed: next() })),
  ]),
);
const byFault = MISHAPS.map(({ name, scenario, mishap, is, ways }) => {
  const cell = { scenario, step: 0.5, families: FAMILIES, count: COUNT, seed: next(), mishap };
  const said = tally({ ...cell, convention: 'nose', is });
  // The closing check, lifts, bled-down lifters and the card itself stand in no reading of the wheel that could be compared.
  const byTheWheel = !scenario.closing && !/unit|bleed|card/.test(name);
  const told = byTheWheel ? tellable({ ...cell, seen: LEARNT }) : NaN;
  const found = byTheWheel && ways ? findable({ ...cell, seen: LEARNT, ways }) : NaN;
  const others = [...said.first].filter(([fault]) => !is.includes(fault)).sort((a, b) => b[1] - a[1]);
  return [
    name,
    scenario.name + (scenario.closing ? ', closing check' : ''),
    percent(said.named),
    percent(said.askedAbout),
    percent(found),
    percent(told),
    percent(said.wrong),
    percent(said.wrongIfAsked),
    percent(said.nagged),
    others
      .slice(0, 3)
      .map(([fault, count]) => `${fault} ${percent(count / COUNT)}`)
      .join(', ') || '–',
  ];
});
// Last: what stands above it keeps its random numbers.
const byLean = FAR_LEANS.map(({ leans, scenario }) => [
  scenario.name,
  `${leans}°`,
  ...cells(tally({ scenario, convention: 'nose', step: 0.5, families: FAMILIES, count: COUNT, seed: next() })),
]);

const text = `# The judgement, measured

Written by \`npm run judgement -- ${COUNT} ${SEED}\`: ${COUNT} jobs a cell. Engines, lobes, readers and cards come from \`core/src/judgement\`, which uses nothing of the
model that judges them: lobes of five other families with ramps, noses 40 to 48° wide at 0.050 in, leaning by 0.5° with a standard deviation of 1.2° (common
practice, no source); wheels read to 1°, ½° or ¼° by an eye that errs by 0.1°; base circles taken up to 0.002 in wrong; indicators leaning by up to 0.8 %;
pin offsets; TDC found by a stop and proved, as well as such a reader can.

**nose**: the card's centreline is the middle of an equal drop. **event**: it is the middle of the events at 0.050 in. Covered: the true place of the cam lies within
the stated 95 % interval. No figure: it is not said where the cam sits, since the card contradicts itself. In its own school: the same, counted as the builder measured, where he compared an equal drop with a printed centreline. Accused: a healthy
engine, of which a fault is spoken. Measure again: a healthy engine, sent back to its wheel. For nothing: of all, those whose figure lies outside the limit and whose
interval tells the way, or whose figure lies inside and is known to twice the limit; the others need another reading, and are told which.

## By card and reader

${table(['job', 'card', 'read to', ...HEADS], byReader)}

## By lobe, card of the nose, read to ½°

${table(['job', 'lobe', ...HEADS], byFamily)}

## Lobes that lean far, card of the nose, read to ½°

A card that prints a centreline and events more than 3° apart seems to contradict itself. Like is compared with like; readings of both ways bear the card out, or show
that it is wrong.

${table(['job', 'the intake leans by', ...HEADS], byLean)}

## What went wrong

Named: the fault is among those that are spoken of. Asked about: nobody is accused, but it is said that it may have happened, and how to find out, before anything is
moved or left. Can be found: what the best of judges finds out who knows how often healthy readings come out so, of ${LEARNT} engines of which he may accuse one in a hundred,
and every way that the mishap may have taken, not which: before which reading the wheel slipped, and how far. Told which: the same of one who is told that too, and looks for
nothing else; nobody at an engine is. Both know these lobes as no builder does, and that noses never leave 40 to 48°: of a single pair nothing else speaks, and whoever
believed it would accuse engines whose noses are blunter. Wrong: a move or "leave it" that is more than its interval, and more than a degree, from the truth. Of what the
readings cannot show (a wheel that slips before the first of them, within the only pair), nothing can be named without the closing check, and one pair alone shows no
misreading at all: such a verdict asks for it before the cam is moved or left ("First make the closing check"). Asked first: of all jobs, those that are wrong but ask so.

${table(['what happened', 'job', 'named', 'asked about', 'can be found', 'told which', 'wrong', 'asked first', 'measure again', 'named first instead'], byFault)}
`;
writeFileSync(TO, await format(text, { ...(await resolveConfig(TO)), parser: 'markdown' }));
console.log(text);
