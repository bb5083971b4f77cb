import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { type ValveName, isSameValve, valveWords } from '@yosoku/core/valve-train/valve-name';
import { useDraft } from '@/store/use-draft';
import { useStation } from '@/logbook/station';

export type LashJob = NonNullable<Report['lash']['job']>;
export type LashValve = LashJob['valves'][number];

/** What stands on the keypad: what was found before anything was turned, or what it was set to. */
export type Meaning = 'found' | 'set';

/** The valve that is at hand: the next one of the order, or another that was pressed. */
export function useLash(job: LashJob) {
  const { report, write } = useStation();
  const { draft, change } = useDraft(`${report.build.id}/lash/${job.id}`);
  const chosen = job.valves.find((each) => valveWords(each) === draft.valve) ?? null;
  const { next } = job;
  const own = chosen ?? (next && job.valves.find((each) => isSameValve(each, next))) ?? null;
  const stop = own ? (job.stops[own.stop] ?? null) : null;
  const meaning: Meaning = draft.meaning === 'set' ? 'set' : 'found';
  const take = (said: Pick<BodyOf<'lash.taken'>, 'found' | 'set' | 'turns'>): void => {
    if (!own) return;
    const { cylinder, valve, which } = own;
    const { wanted } = job;
    const step = wanted.kind === 'lash' ? wanted.noGo : undefined;
    const blades = said.set !== undefined && step !== undefined ? { go: said.set, noGo: said.set + step } : {};
    write('lash.taken', {
      job: job.id,
      cylinder,
      valve,
      ...(which === null ? {} : { which }),
      ...(stop?.at == null || stop.ring === null ? {} : { at: stop.at }),
      ...said,
      ...blades,
    });
    change({ valve: '', meaning: 'found' });
  };
  return {
    own,
    stop,
    meaning,
    mean: (next: Meaning) => change({ meaning: next }),
    choose: (valve: ValveName) => change({ valve: valveWords(valve) }),
    take,
  };
}

export type LashEntry = ReturnType<typeof useLash>;
