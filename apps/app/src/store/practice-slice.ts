import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { Entry } from '@yosoku/core/record/entry';
import type { Cause } from '@yosoku/core/practice/causes';
import type { Debrief, Practised } from '@yosoku/core/practice/debrief';
import type { ExerciseName } from '@yosoku/core/practice/exercises';
import type { Setting } from '@yosoku/core/timing-set/hardware';
import type { Stand } from '@yosoku/core/simulation/whole-engine';
import { signedOut } from './session-slice';

/** A practice on this device. Its logbook never leaves it, and never stands among the builds. */
export interface PracticeRun extends Practised {
  readonly id: string;
  readonly builderId: string;
  readonly begunAt: string;
  /** What a phone shows of it: the engine, or the station at hand. */
  readonly showing: 'engine' | 'station';
  readonly doneAt: string | null;
  /** The truth as it was told then: what is tried afterwards changes nothing of it. */
  readonly told: Debrief | null;
  /** Where the timing hardware was put, by its place among the parts. */
  readonly settings: Readonly<Record<number, Setting>>;
}

interface PracticeScore {
  readonly id: string;
  readonly exercise: ExerciseName;
  readonly score: number;
  readonly hints: number;
  readonly doneAt: string;
}

interface PracticeState {
  readonly runs: Readonly<Record<string, PracticeRun>>;
  /** Of whoever is signed in, newest first, as the server told them last. */
  readonly scores: readonly PracticeScore[];
  /** Not told to the server yet. */
  readonly unsent: readonly PracticeScore[];
}

const initialState: PracticeState = { runs: {}, scores: [], unsent: [] };
/** So many finished ones are kept to be looked at again. */
const MOST_DONE = 10;

const changed = (state: PracticeState, id: string, change: Partial<PracticeRun>): PracticeState => {
  const run = state.runs[id];
  return run ? { ...state, runs: { ...state.runs, [id]: { ...run, ...change } } } : state;
};

const practiceSlice = createSlice({
  name: 'practice',
  initialState,
  reducers: {
    practiceBegun: (state, { payload }: PayloadAction<PracticeRun>) => {
      const done = Object.values(state.runs)
        .filter(({ doneAt }) => doneAt !== null)
        .sort((a, b) => (a.begunAt < b.begunAt ? 1 : -1));
      const old = new Set(done.slice(MOST_DONE - 1).map(({ id }) => id));
      const kept = Object.fromEntries(Object.entries(state.runs).filter(([id]) => !old.has(id)));
      return { ...state, runs: { ...kept, [payload.id]: payload } };
    },
    /** Something was written into its logbook, while the engine stood so. */
    practised: (state, { payload: { entry, stand } }: PayloadAction<{ entry: Entry; stand: Stand }>) => {
      const run = state.runs[entry.buildId];
      if (!run) return state;
      return changed(state, run.id, {
        entries: [...run.entries, entry],
        trail: { ...run.trail, [entry.id]: stand },
        stand,
      });
    },
    /** The engine has come to rest. */
    stood: (state, { payload: { id, stand } }: PayloadAction<{ id: string; stand: Stand }>) =>
      changed(state, id, { stand }),
    looked: (state, { payload: { id, at } }: PayloadAction<{ id: string; at: PracticeRun['showing'] }>) =>
      changed(state, id, { showing: at }),
    drivePut: (state, { payload: { id, at, setting } }: PayloadAction<{ id: string; at: number; setting: Setting }>) =>
      changed(state, id, { settings: { ...state.runs[id]?.settings, [at]: setting } }),
    hinted: (state, { payload: id }: PayloadAction<string>) =>
      changed(state, id, { hints: (state.runs[id]?.hints ?? 0) + 1 }),
    answered: (state, { payload: { id, answer } }: PayloadAction<{ id: string; answer: Cause }>) =>
      changed(state, id, { answer }),
    practiceDone: (
      state,
      {
        payload: { id, at, told, score },
      }: PayloadAction<{ id: string; at: string; told: Debrief; score: PracticeScore | null }>,
    ) => {
      const done = changed(state, id, { doneAt: at, told, showing: 'engine' });
      return score ? { ...done, unsent: [...done.unsent, score] } : done;
    },
    practiceDropped: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      runs: Object.fromEntries(Object.entries(state.runs).filter(([each]) => each !== id)),
    }),
    scoresHeard: (state, { payload }: PayloadAction<readonly PracticeScore[]>) => {
      const kept = new Set(payload.map(({ id }) => id));
      return { ...state, scores: payload, unsent: state.unsent.filter(({ id }) => !kept.has(id)) };
    },
  },
  extraReducers: (builder) => builder.addCase(signedOut, () => initialState),
});

export const {
  practiceBegun,
  practised,
  stood,
  looked,
  drivePut,
  hinted,
  answered,
  practiceDone,
  practiceDropped,
  scoresHeard,
} = practiceSlice.actions;
export const practiceReducer = practiceSlice.reducer;
