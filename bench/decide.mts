import { Bench } from 'tinybench';
import { performance } from 'node:perf_hooks';
import { expandedOf } from '../packages/core/src/statistics/coverage';
import { diagnose } from '../packages/core/src/verdict/diagnose';
import { drawErrors, drawingCase } from '../packages/core/src/verdict/monte-carlo';
import { placeOf } from '../packages/core/src/verdict/place-cam';
import { weigh } from '../packages/core/src/verdict/weigh';
import { GONE_WRONG } from '../packages/core/src/simulation/gone-wrong';
import { measureSomeCam } from '../packages/core/src/simulation/measured-cam';
import { makeRandom } from '../packages/core/src/statistics/random';

/**
 * Prints, as JSON, how long it takes to weigh the ten readings of both lobes into a place with its uncertainty, to find what went wrong among all
 * faults (a wheel that slipped), and to draw a million errors on one core: median, ms.
 */

const healthy = measureSomeCam(makeRandom(5), { thorough: true }).evidence;
const slipped = measureSomeCam(makeRandom(541), {
  ...GONE_WRONG['wheel-slipped']?.(makeRandom(540)),
  thorough: true,
}).evidence;

const place = () => {
  const weighing = weigh(healthy);
  const placed = weighing && placeOf(weighing, 'intake');
  if (!placed) throw new Error('it was measured');
  return { weighing, placed, stated: expandedOf(placed.sources) };
};
const bench = new Bench({ time: 1500, warmupTime: 700 });
bench.add('weigh', () => void place());
bench.add('diagnose', () => {
  if (diagnose(slipped).named.length === 0) throw new Error('it slipped');
});
await bench.run();
const median = (at: number): number => {
  const result = bench.tasks[at]?.result;
  if (!result || !('latency' in result)) throw new Error('no figures');
  return result.latency.p50;
};

const { weighing, placed, stated } = place();
const drawn = Array.from({ length: 3 }, (_, i) => {
  const began = performance.now();
  const drawing = drawErrors(drawingCase(weighing, placed, stated), 1_000_000, makeRandom(i + 1));
  while (!drawing.next().done);
  return performance.now() - began;
}).sort((a, b) => a - b);
console.log(JSON.stringify({ weigh: median(0), diagnose: median(1), million: drawn[1] }));
