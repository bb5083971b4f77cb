import { type PayloadAction, createSlice } from '@reduxjs/toolkit';

/** What is half typed, by the place where it is being typed. Survives a reload. */
export type Draft = Readonly<Record<string, string>>;

const draftsSlice = createSlice({
  name: 'drafts',
  initialState: {} as Readonly<Record<string, Draft>>,
  reducers: {
    drafted: (state, { payload }: PayloadAction<{ place: string; draft: Draft }>) => ({
      ...state,
      [payload.place]: payload.draft,
    }),
    /** Some fields of it: the others stay as they are. */
    draftChanged: (state, { payload }: PayloadAction<{ place: string; part: Readonly<Partial<Draft>> }>) => ({
      ...state,
      [payload.place]: { ...state[payload.place], ...(payload.part as Draft) },
    }),
    /** Nothing that was half typed stays on this device. */
    draftsForgotten: () => ({}),
    draftDone: (state, { payload }: PayloadAction<string>) =>
      Object.fromEntries(Object.entries(state).filter(([place]) => place !== payload)),
  },
});

export const { drafted, draftChanged, draftDone, draftsForgotten } = draftsSlice.actions;
export const draftsReducer = draftsSlice.reducer;
