import { wrap180 } from '../units/angle';
import type { ZeroFinding } from './derive-zero';
import type { Build } from '../record/fold';
import type { SettingFinding } from './readings/zero-passes';

export interface RebaseOffer {
  readonly from: string;
  readonly to: string;
  readonly by: number;
  readonly readings: string[];
}

/**
 * Readings of a disturbed zero that could be saved: the new zero's first passes were made on the wheel as it had been left,
 * so they show by how much it had moved. Only offered where nothing but the wheel is said to have been disturbed.
 */
export function findRebase(
  build: Build,
  zero: ZeroFinding,
  settings: ReadonlyMap<string, SettingFinding>,
): RebaseOffer | null {
  const to = build.zero?.current.id;
  const before = build.zeros.at(-2)?.current.id;
  if (!to || !before || zero.state !== 'proved') return null;
  const disturbance = build.disturbed.get(before)?.body;
  const old = settings.get(before);
  if (disturbance?.what !== 'wheel' || !old?.proved) return null;
  const firstPass = zero.passes.find((pass) => pass.setting === null && pass.result);
  if (!firstPass?.result || !build.zero?.stages[0]?.passes.some((pass) => pass.id === firstPass.id)) return null;
  const readings = build.trials
    .flatMap((trial) => [...trial.rounds.flatMap((round) => round.readings), ...trial.traces])
    .filter(({ id, body }) => body.setting === before && !disturbance.keeps.includes(id) && !build.rebased.has(id))
    .map(({ id }) => id);
  return readings.length > 0 ? { from: before, to, by: wrap180(firstPass.result.tdc - old.offset), readings } : null;
}
