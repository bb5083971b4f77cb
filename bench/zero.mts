import { Bench } from 'tinybench';
import { solveTdc } from '../packages/core/src/tdc/equal-heights';
import { zeroUncertainty } from '../packages/core/src/tdc/zero-uncertainty';

/** Prints how long TDC and its uncertainty take to derive from one pass, as JSON: median, microseconds. */
const crank = { stroke: 86, rod: 139, pinOffset: -0.8 };
const bench = new Bench({ time: 500, warmupTime: 200 });
let sum = 0;
bench.add('pass', () => {
  const solved = solveTdc({ before: 200, after: 274 }, crank);
  if (!solved.ok) throw new Error('a good pair');
  const { expanded } = zeroUncertainty({
    method: 'positive-stop',
    half: solved.half,
    engine: crank,
    readOn: { on: 'wheel', radius: 115, graduation: 1 },
    resolution: 0.01,
    passes: [solved.tdc],
  });
  sum += expanded;
});
await bench.run();
const result = bench.tasks[0]?.result;
if (!result || !('latency' in result) || !(sum > 0)) throw new Error('no figures');
console.log(JSON.stringify({ microseconds: result.latency.p50 * 1000 }));
