import { VALVES, type CamCard, type LobeCard, type TimingLine } from '../cam/card';
import { READ_METHODS } from '../measure/read-methods';
import type { Report } from './report-schema';

const tenth = (degrees: number): number => Math.round(degrees * 10) / 10;
const hundredth = (mm: number): number => Math.round(mm * 100) / 100;

/**
 * A card for a cam that came without one, written from what was measured of it: lifts, centrelines, events. Tenths of a degree and
 * hundredths of a millimetre.
 * @returns null where nothing was measured.
 */
export function cardFromMeasured(trial: Report['trials'][number] | undefined): CamCard | null {
  if (!trial) return null;
  const lobes = VALVES.flatMap((valve): [typeof valve, LobeCard][] => {
    const views = trial.views.filter((view) => view.valve === valve);
    const centre = views.find((view) => READ_METHODS[view.method].gives === 'centreline');
    const lobeLift = views.find((view) => view.key === `lobe-lift ${valve}`)?.value;
    const trace = trial.traces.find((each) => each.valve === valve && each.figures && each.sitsOn !== 'valve');
    const lines = new Map<string, TimingLine>();
    for (const { events, height, sitsOn, valve: of } of trial.rounds) {
      if (of !== valve || !events || height === null) continue;
      const at = sitsOn === 'valve' ? 'valve' : 'lobe';
      lines.set(`${height} ${at}`, { height, at, opens: tenth(events.opens), closes: tenth(events.closes) });
    }
    const lift = lobeLift ?? trace?.figures?.peak;
    const lobe: LobeCard = {
      ...(centre ? { centreline: tenth(centre.value) } : {}),
      ...(lift === undefined ? {} : { lobeLift: hundredth(lift) }),
      ...(lines.size > 0 ? { timing: [...lines.values()] } : {}),
    };
    return Object.keys(lobe).length > 0 ? [[valve, lobe]] : [];
  });
  return lobes.length > 0 ? { name: 'As measured', ...Object.fromEntries(lobes) } : null;
}
