import { useCallback, useEffect, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import type { Valve } from '@yosoku/core/cam/card';
import { type Drawn, type DrawnPart, drawnOf } from '@yosoku/core/verdict/drawn';
import { selectEntries } from '@/store/selectors';
import type { RootState } from '@/store/store';
import type { DrawingAsked, DrawingTold } from './drawing.worker';

/** The bundler makes a piece of its own of a worker that is named like this; by `new URL(…)` it loses it when it leaves out what is not used. */
declare const require: { readonly unstable_resolveWorker: (path: string) => string };

const DRAWS = 1_000_000;
/** Two workers, for two cores. */
const WORKERS = 2;

export type Drawing =
  | { readonly state: 'idle' | 'failed' }
  | { readonly state: 'drawing'; readonly share: number }
  | { readonly state: 'done'; readonly drawn: Drawn; readonly stated: number; readonly took: number };

/** A million draws of a verdict's errors in workers: begun, watched, given up, and given up too when nobody looks any more. */
export function useDrawing(buildId: string, trial: string, cam: Valve, bank: 1 | 2) {
  const store = useStore<RootState>();
  const [drawing, setDrawing] = useState<Drawing>({ state: 'idle' });
  const running = useRef<Worker[]>([]);
  const stop = useCallback(() => {
    for (const worker of running.current) worker.terminate();
    running.current = [];
  }, []);
  useEffect(() => stop, [stop]);

  const begin = (): void => {
    stop();
    const began = performance.now();
    const drawn = new Array<number>(WORKERS).fill(0);
    const parts: DrawnPart[] = [];
    const entries = selectEntries(store.getState(), buildId);
    setDrawing({ state: 'drawing', share: 0 });
    const fail = (): void => {
      stop();
      setDrawing({ state: 'failed' });
    };
    if (typeof Worker === 'undefined') return fail();
    running.current = drawn.map((_, place) => {
      const worker = new Worker(require.unstable_resolveWorker('./drawing.worker'));
      worker.onerror = fail;
      worker.onmessage = ({ data }: MessageEvent<DrawingTold>) => {
        if ('nothing' in data) return fail();
        if ('drawn' in data) {
          drawn[place] = data.drawn;
          setDrawing({ state: 'drawing', share: drawn.reduce((sum, each) => sum + each, 0) / DRAWS });
          return;
        }
        parts.push(data.part);
        if (parts.length < WORKERS) return;
        stop();
        setDrawing({
          state: 'done',
          drawn: drawnOf(parts),
          stated: data.expanded,
          took: performance.now() - began,
        });
      };
      const asked: DrawingAsked = {
        entries,
        trial,
        cam,
        bank,
        draws: DRAWS / WORKERS,
        seed: 20_260_701 + 7919 * place,
      };
      worker.postMessage(asked);
      return worker;
    });
  };
  const cancel = (): void => {
    stop();
    setDrawing({ state: 'idle' });
  };
  return { drawing, begin, cancel };
}
