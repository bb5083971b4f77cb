import type { Href } from 'expo-router';
import { EXERCISES, type ExerciseName } from '@yosoku/core/practice/exercises';
import type { Goal } from '@yosoku/core/practice/exercise';
import { type OwnTwist, makeScenario } from '@yosoku/core/practice/make-scenario';
import { openPractice } from '@yosoku/core/practice/opening';
import type { PracticeBase } from '@yosoku/core/practice/scenario';
import { met } from '@yosoku/core/simulation/whole-engine';
import { newId } from '@/logbook/use-logbook';
import { type PracticeRun, practiceBegun } from '@/store/practice-slice';
import type { Store } from '@/store/store';

export interface ToBegin {
  readonly exercise: ExerciseName;
  readonly base: PracticeBase;
  readonly builderId: string;
  readonly own?: OwnTwist;
  /** The same seed makes the same engine: for a class that practises on one. Left out: any. */
  readonly seed?: number;
}

/** Where an exercise begins, or goes on. */
export function practicePlace({ id, exercise }: Pick<PracticeRun, 'id' | 'exercise'>): Href {
  const { goal, tdc } = EXERCISES[exercise];
  return `/builds/${id}/${FIRST_PLACE[goal] ?? (tdc === 'proved' ? 'read' : 'zero')}`;
}

/** Exercises that begin at a place of their own. */
const FIRST_PLACE: Partial<Record<Goal, string>> = {
  lobe: 'lobes',
  lash: 'lash',
  pushrod: 'rockers',
  play: 'prepare',
};

const anySeed = (): number => crypto.getRandomValues(new Int32Array(1))[0] ?? 1;

/** Makes an engine up and begins to practise on it. @returns the address of its first station. */
export function beginPractice(
  { dispatch }: Pick<Store, 'dispatch'>,
  { exercise, base, builderId, own, seed = anySeed() }: ToBegin,
): Href {
  const id = newId();
  const now = new Date().toISOString();
  const scenario = makeScenario(exercise, base, seed, own);
  const run: PracticeRun = {
    id,
    builderId,
    exercise,
    scenario,
    entries: openPractice(exercise, scenario, { newId, buildId: id, builderId, now }),
    trail: {},
    stand: met(scenario.engine, scenario.advance, scenario.mount, scenario.crank),
    hints: 0,
    answer: null,
    begunAt: now,
    showing: 'engine',
    doneAt: null,
    told: null,
    settings: {},
  };
  dispatch(practiceBegun(run));
  return practicePlace(run);
}
