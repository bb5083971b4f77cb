import { diagnose } from '../src/verdict/diagnose';
import { FAULTS, FAULT_NAMES, type FaultName } from '../src/verdict/faults';
import { GONE_WRONG } from '../src/virtual-engine/gone-wrong';
import { measureSomeCam } from '../src/virtual-engine/measured-cam';
import { makeRandom } from '../src/virtual-engine/random';

/**
 * Prints, as Markdown, what the diagnosis says of virtual engines on which each fault was made: how often it is spoken of, how often it is named, and
 * with what it is confused. `fault-table.ts 200` measures 200 engines for each fault.
 */

const COUNT = Number(process.argv[2] ?? 200);
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

console.log('| fault | spoken of | could be told apart | then named | named beside it | named instead |');
console.log('|---|---:|---:|---:|---|---|');
let [identifiable, found] = [0, 0];
FAULT_NAMES.forEach((fault, at) => {
  if (!GONE_WRONG[fault]) return;
  const counted = count(fault, at);
  identifiable += counted.identifiable;
  found += counted.found;
  console.log(
    `| ${fault} | ${share(counted.spoken, counted.engines)} | ${share(counted.identifiable, counted.engines)} | ${share(counted.found, counted.identifiable)} | ${most(counted.beside, counted.engines)} | ${most(counted.instead, counted.engines)} |`,
  );
});
console.log(
  `\nOf ${identifiable} engines whose fault could be told apart, it was named in ${share(found, identifiable)}.`,
);
let accused = 0;
const healthy = 10 * COUNT;
const random = makeRandom(77);
for (let i = 0; i < healthy; i += 1) if (diagnose(measureSomeCam(random).evidence).named.length > 0) accused += 1;
console.log(
  `Of ${healthy} healthy engines, measured anyhow, ${accused} were accused (${((100 * accused) / healthy).toFixed(2)} %).`,
);
