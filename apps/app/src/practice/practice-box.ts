import { VALVES } from '@yosoku/core/cam/card';
import { runningSign } from '@yosoku/core/crank/ring-face';
import { type Stand, travel } from '@yosoku/core/simulation/whole-engine';
import type { PracticeRun } from '@/store/practice-slice';
import { liveEngineOf } from './use-live-engine';
import type { Instrument, openInstrument } from '@/instruments/instrument';

/** How the practice box behaves. */
export type Manner = 'usual' | 'perfect' | 'rough';

/**
 * The bench box of a practice engine: it measures what the engine does, and speaks through the server as a real one would.
 * @param open handed in: this is fetched with the practice, listening with the instruments, and neither shall wait for the other.
 */
export function openPracticeBox(run: PracticeRun, manner: Manner, open: typeof openInstrument): Instrument {
  const live = liveEngineOf(run);
  const sign = runningSign(live.engine.rotation);
  const measured = (stand: Stand) => ({
    // An encoder counts up clockwise, whichever way the engine runs.
    angle: sign * stand.crank,
    lifts: VALVES.map((valve) => travel(live.engine, stand, valve)),
  });
  const instrument = open('practice-box', '/practice/instruments', (say) =>
    say({ manner, stands: [measured(live.stand())] }),
  );
  const unfollow = live.follow((stand) => instrument.say({ stands: [measured(stand)] }));
  boxes.set(run.id, instrument);
  return {
    ...instrument,
    close: () => {
      boxes.delete(run.id);
      unfollow();
      instrument.close();
    },
  };
}

const boxes = new Map<string, Instrument>();

/** The box that is plugged in at a practice, to be told how to behave; null without one. */
export const practiceBoxOf = (id: string): Instrument | null => boxes.get(id) ?? null;
