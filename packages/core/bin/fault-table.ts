import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { ACCUSES, DOUBTED, NEARLY_ALL, TOLD_APART, diagnose } from '../src/verdict/diagnose';
import { FAULTS, FAULT_NAMES, type FaultName } from '../src/verdict/faults';
import { GONE_WRONG } from '../src/simulation/gone-wrong';
import { measureSomeCam } from '../src/simulation/measured-cam';
import { makeRandom } from '../src/statistics/random';

/**
 * Writes docs/faults.md: what the diagnosis says of virtual engines on which each fault was made, how often it is spoken of, how often it is named, and
 * with what it is confused. `npm run fault-table -- 200` measures 200 engines for each fault; a few minutes. A third word names another file.
 */

const COUNT = Number(process.argv[2] ?? 200);
const TO = path.resolve(process.argv[3] ?? path.join(import.meta.dirname, '../../../docs/faults.md'));
const APART = 12;

interface Counted {
  engines: number;
  spoken: number;
  identifiable: number;
  found: number;
  readonly beside: Map<FaultName, number>;
  readonly instead: Map<FaultName, number>;
}

/** Would readings without any error tell this fault from all that are not named with it? */
function tellsApart(seed: number, fault: FaultName): boolean {
  const wrong = GONE_WRONG[fault]?.(makeRandom(seed)) ?? {};
  const { named, ranked } = diagnose(
    measureSomeCam(makeRandom(seed + 1), { ...wrong, thorough: true, exact: true }).evidence,
  );
  if (!named.some((each) => each.fault === fault)) return false;
  const outside = ranked.find((each) => !FAULTS[each.fault].vague && !named.includes(each));
  return (named[0]?.better ?? 0) - (outside?.better ?? 0) >= APART;
}

function count(fault: FaultName, at: number): Counted {
  const counted: Counted = { engines: 0, spoken: 0, identifiable: 0, found: 0, beside: new Map(), instead: new Map() };
  for (let i = 0; i < COUNT; i += 1) {
    const seed = 1_000_000 * (at + 1) + 10 * i;
    const wrong = GONE_WRONG[fault]?.(makeRandom(seed)) ?? {};
    const { named } = diagnose(measureSomeCam(makeRandom(seed + 1), { ...wrong, thorough: true }).evidence);
    counted.engines += 1;
    if (named.length > 0) counted.spoken += 1;
    const found = named.some((each) => each.fault === fault);
    const add = (to: Map<FaultName, number>): void => {
      for (const each of named) if (each.fault !== fault) to.set(each.fault, (to.get(each.fault) ?? 0) + 1);
    };
    if (found) add(counted.beside);
    else add(counted.instead);
    if (!tellsApart(seed, fault)) continue;
    counted.identifiable += 1;
    if (found) counted.found += 1;
  }
  return counted;
}

const share = (part: number, whole: number): string => (whole === 0 ? '–' : `${Math.round((100 * part) / whole)} %`);
const most = (all: ReadonlyMap<FaultName, number>, whole: number): string =>
  [...all]
    .sort((a, b) => b[1] - a[1])
    .filter(([, times]) => times >= whole / 50)
    .slice(0, 4)
    .map(([fault, times]) => `${fault} ${share(times, whole)}`)
    .join(', ') || '–';

const lines = [
  '| fault | spoken of | could be told apart | then named | named beside it | named instead |',
  '| --- | ---: | ---: | ---: | --- | --- |',
];
let [identifiable, found] = [0, 0];
FAULT_NAMES.forEach((fault, at) => {
  if (!GONE_WRONG[fault]) return;
  const counted = count(fault, at);
  identifiable += counted.identifiable;
  found += counted.found;
  lines.push(
    `| ${fault} | ${share(counted.spoken, counted.engines)} | ${share(counted.identifiable, counted.engines)} | ${share(counted.found, counted.identifiable)} | ${most(counted.beside, counted.engines)} | ${most(counted.instead, counted.engines)} |`,
  );
});
let accused = 0;
const healthy = 10 * COUNT;
const random = makeRandom(77);
for (let i = 0; i < healthy; i += 1) if (diagnose(measureSomeCam(random).evidence).named.length > 0) accused += 1;

const words = FAULT_NAMES.map((fault) => `| ${fault} | ${FAULTS[fault].words} | ${FAULTS[fault].check} |`);
const text = `# What goes wrong, and what is confused with what

Written by \`npm run fault-table\`; do not edit. A fault is spoken of when it explains the readings better than "nothing is wrong" by ${ACCUSES} in χ², after what it
could have explained anyhow has been taken off (its marginal likelihood, and the number of ways it has); from ${DOUBTED} on nobody is accused, but it is said that it may have
happened, before anything is moved or left. Faults within ${TOLD_APART} of the best are named together, with the check that tells; of lifters that bleed down, whose formula is a likeness, also those that explain all but ${100 * NEARLY_ALL} % of what it does: the readings cannot.

| fault | what may have happened | the check that tells |
| --- | --- | --- |
${words.join('\n')}

## Measured on virtual engines

${COUNT} engines for each fault, single and twin cams, each with both centrelines, the events at 0.050 in and the lift of both lobes read once, with the errors of people and
instruments; sizes of the faults as they are met (\`gone-wrong.ts\`, from memory). "Could be told apart": readings of the same engine without any error name the fault, and leave all that is not named with it
${APART} behind. "Named": alone or together with others.

${lines.join('\n')}

Of ${identifiable} engines whose fault could be told apart, it was named in ${share(found, identifiable)}. Of ${healthy} healthy engines, measured anyhow, ${accused} were accused of something (${((100 * accused) / healthy).toFixed(2)} %).

- TDC not proved, and a tooth out, move everything alike: no reading tells them apart. One tooth (15 to 21°) is within what a drive in a very bad state does, so it is spoken of in
  part of the cases only; beyond 15° nothing is moved in any case.
- The lobes ground apart looks like a wheel that slipped between the valves, unless the stop contacts were found equal afterwards.
- The other TDC (firing instead of overlap) is seen by no reading of the wheel; only a lift at TDC that is not there shows it. Look at the valves.
`;
writeFileSync(TO, await format(text, { ...(await resolveConfig(TO)), parser: 'markdown' }));
console.log(`written: ${TO}`);
