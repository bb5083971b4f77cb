import { Bench } from 'tinybench';
import { carryGap, roomToMove } from '../packages/core/src/clearance/valve-to-piston';
import { sweepGap } from '../packages/core/src/clearance/sweep';
import { type Hardware, straightUp } from '../packages/core/src/timing-set/hardware';
import { learnResponse } from '../packages/core/src/timing-set/learned-response';
import { planMove } from '../packages/core/src/timing-set/plan-move';

/** Prints as JSON how long planning over some ten thousand combinations and sweeping a clearance take: medians, milliseconds. */
const HARDWARE: readonly Hardware[] = [
  { kind: 'keyways', stamped: 'crank', marks: [-8, -6, -4, -2, 0, 2, 4, 6, 8] },
  { kind: 'bushings', stamped: 'cam', marks: [-3, -2, -1, 0, 1, 2, 3] },
  { kind: 'hole-circle', gear: 59, hub: 60 },
];
const parts = HARDWARE.map((hardware, at) => ({
  part: String(at),
  hardware,
  at: straightUp(hardware),
  turns: ['single'],
  response: learnResponse(hardware, []),
}));
const setting = {
  valve: 'intake',
  crank: { stroke: 88, rod: 145, pinOffset: 0 },
  angle: 18,
  pocket: 'unknown',
  lobe: { peak: 8, nose: 108, half: 145, power: 3, lean: 1 },
  ratio: 1.5,
  lash: 0.3,
} as const;
const measured = [{ at: 10, gap: 3, camAhead: 0 }];

const bench = new Bench({ time: 1500, warmupTime: 300 });
let sum = 0;
bench.add('plan', () => {
  sum += planMove(parts, [{ cam: 'single', delta: -2.6, room: { from: -9, to: 7 } }]).length;
});
bench.add('room', () => {
  sum += roomToMove(carryGap(setting, measured), 2)?.to ?? 0;
});
bench.add('sweep', () => {
  sum += sweepGap(setting, measured).overCam.length;
});
await bench.run();
const p50 = (at: number): number => {
  const result = bench.tasks[at]?.result;
  if (!result || !('latency' in result) || !(sum > 0)) throw new Error('no figures');
  return result.latency.p50;
};
console.log(JSON.stringify({ plan: p50(0), room: p50(1), sweep: p50(2) }));
