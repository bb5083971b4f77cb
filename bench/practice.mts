import { performance } from 'node:perf_hooks';
import { SILENT, hear } from '@yosoku/core/instruments/hear';
import { recordTurn } from '@yosoku/core/instruments/record-turn';
import { makeScenario } from '@yosoku/core/practice/make-scenario';
import { PRACTICE_SIX } from '@yosoku/core/practice/scenario';
import { USUAL_BOX, makeBenchBox } from '@yosoku/core/simulation/bench-box';
import { makeRandom } from '@yosoku/core/statistics/random';
import { met, turned } from '@yosoku/core/simulation/whole-engine';

/** Prints, as JSON: microseconds that a frame of the practice engine takes of the arithmetic, and a line of an instrument; bytes that a minute of lines leaves behind. */
const FRAMES = 20_000;
const LINES = 60_000;

const scenario = makeScenario('sticking', PRACTICE_SIX, 5);
let stand = met(scenario.engine, scenario.advance, scenario.mount, scenario.crank);
for (let i = 0; i < 2_000; i += 1) stand = turned(scenario.engine, stand, 3);
let began = performance.now();
for (let i = 0; i < FRAMES; i += 1) stand = turned(scenario.engine, stand, 3);
const frame = ((performance.now() - began) * 1000) / FRAMES;

const say = makeBenchBox('bench', USUAL_BOX, makeRandom(2));
const lines = Array.from({ length: LINES }, (_, ms) => say(ms, ms / 100, [ms / 10_000, null]) ?? '');
const listen = (): number => {
  let heard = SILENT;
  const recorder = recordTurn();
  lines.forEach((line, ms) => {
    heard = hear(heard, line, ms);
    if (heard.last) recorder.add(heard.last.angle, heard.last.lifts[0] ?? 0);
  });
  return heard.tally.good;
};
listen();
global.gc?.();
const before = process.memoryUsage().heapUsed;
began = performance.now();
const good = listen();
const line = ((performance.now() - began) * 1000) / LINES;
global.gc?.();
const grown = process.memoryUsage().heapUsed - before;
console.log(JSON.stringify({ frame, line, grown, good: good / LINES }));
