import { useEffect, useState } from 'react';
import type { Valve } from '@yosoku/core/cam/card';
import type { Sweep } from '@yosoku/core/clearance/sweep';
import { selectEntries } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import type { SweepAsked, SweepTold } from './sweep.worker';

/** The bundler makes a piece of its own of a worker that is named like this. */
declare const require: { readonly unstable_resolveWorker: (path: string) => string };

/** The gap of a valve over crank and cam, swept anew whenever the logbook grows; null until it is there. `known`: is there anything to sweep? */
export function useSweep(buildId: string, valve: Valve, known: boolean): Sweep | null {
  const entries = useAppSelector((state) => selectEntries(state, buildId));
  const [sweep, setSweep] = useState<Sweep | null>(null);
  useEffect(() => {
    if (!known || typeof Worker === 'undefined') return;
    const worker = new Worker(require.unstable_resolveWorker('./sweep.worker'));
    worker.onmessage = ({ data }: MessageEvent<SweepTold>) => {
      setSweep('nothing' in data ? null : data);
      worker.terminate();
    };
    const asked: SweepAsked = { entries, valve };
    worker.postMessage(asked);
    return () => worker.terminate();
  }, [entries, valve, known]);
  return known ? sweep : null;
}
