import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { Waiting } from './logbook-slice';

interface OutboxState {
  /** In the order in which they were made. */
  readonly waiting: readonly Waiting[];
  /** Ids of those that the device is still writing down: a page that is left now would lose them. */
  readonly unwritten: readonly string[];
  readonly reachable: boolean;
  /** The device could not keep what was written last: it is full, or forbids it. What waits is in this page's memory alone. */
  readonly unkept: boolean;
  /** Why what was to be recorded last could not be, in words. */
  readonly unwritable: string | null;
}

const initialState: OutboxState = {
  waiting: [],
  unwritten: [],
  reachable: true,
  unkept: false,
  unwritable: null,
};

const outboxSlice = createSlice({
  name: 'outbox',
  initialState,
  reducers: {
    /** Entries just made on this device. */
    recorded: (state, { payload }: PayloadAction<readonly Waiting[]>) => ({
      ...state,
      waiting: [...state.waiting, ...payload],
      unwritten: [...state.unwritten, ...payload.map(({ entry }) => entry.id)],
      unwritable: null,
    }),
    /** An entry that no logbook would take: it was not written. */
    notWritten: (state, { payload }: PayloadAction<string>) => ({ ...state, unwritable: payload }),
    /** Entries that an earlier visit, or another tab, left behind. */
    recovered: (state, { payload }: PayloadAction<readonly Waiting[]>) => {
      const here = new Set(state.waiting.map(({ entry }) => entry.id));
      return { ...state, waiting: [...payload.filter(({ entry }) => !here.has(entry.id)), ...state.waiting] };
    },
    delivered: (state, { payload }: PayloadAction<readonly string[]>) => ({
      ...state,
      waiting: state.waiting.filter(({ entry }) => !payload.includes(entry.id)),
      unwritten: state.unwritten.filter((id) => !payload.includes(id)),
    }),
    refused: (state, { payload }: PayloadAction<{ id: string; reason: string }>) => ({
      ...state,
      waiting: state.waiting.map((each) =>
        each.entry.id === payload.id ? { ...each, refused: payload.reason } : each,
      ),
    }),
    triedAgain: (state) => ({
      ...state,
      waiting: state.waiting.map(({ shopId, entry }) => ({ shopId, entry })),
    }),
    reached: (state, { payload }: PayloadAction<boolean>) =>
      state.reachable === payload ? state : { ...state, reachable: payload },
    /** The device has written them down, or has tried. */
    written: (state, { payload }: PayloadAction<readonly Waiting[]>) => ({
      ...state,
      unwritten: state.unwritten.filter((id) => payload.every(({ entry }) => entry.id !== id)),
    }),
    keptOnDevice: (state, { payload }: PayloadAction<boolean>) =>
      state.unkept === !payload ? state : { ...state, unkept: !payload },
  },
});

export const { recorded, notWritten, recovered, delivered, refused, triedAgain, reached, written, keptOnDevice } =
  outboxSlice.actions;
export const outboxReducer = outboxSlice.reducer;
