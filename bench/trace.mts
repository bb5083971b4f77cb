import { Bench } from 'tinybench';
import { type Lobe, lobeAt } from '../packages/core/src/cam/lobe';
import { readTrace } from '../packages/core/src/cam/trace';
import { makeRandom } from '../packages/core/src/statistics/random';

/** Prints how long the fit of a 720-point trace takes, as JSON: median and 99th percentile, ms. */

const lobe: Lobe = { peak: 8.4, nose: 108, half: 150, power: 3, lean: 6 };
const random = makeRandom(3);
const points = Array.from({ length: 720 }, (_, i) => ({
  angle: i - 360,
  lift: Math.round((lobeAt(lobe, i - 360).lift + random.normal(0.003)) * 100) / 100,
}));
const bench = new Bench({ time: 2000, warmupTime: 1000 });
bench.add('trace', () => {
  const read = readTrace(points, { liftSd: 0.004, angleSd: 0.1, closes: 0.03 });
  if (!read.ok || !read.curve.flanks(1.27)) throw new Error('nothing read');
});
await bench.run();
const [task] = bench.tasks;
if (!task || !('latency' in task.result)) throw new Error('no figures');
console.log(JSON.stringify({ p50: task.result.latency.p50, p99: task.result.latency.p99 }));
