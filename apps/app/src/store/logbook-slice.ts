import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { Entry } from '@yosoku/core/record/entry';
import type { Station } from '@yosoku/core/record/entries/stations';
import { signedOut } from './session-slice';

export interface BuildSummary {
  readonly id: string;
  readonly name: string;
  /** The station that it is opened at; lists that a device kept before there was one lack it. */
  readonly place?: Station;
  readonly headline: string;
  readonly updatedAt: string;
  /** What it says is older than its newest entries: the server is still working it out. */
  readonly behind?: boolean;
}

/** An entry made here that the server has not answered for yet, with the shop that it belongs to. */
export interface Waiting {
  readonly shopId: string;
  readonly entry: Entry;
  /** Why the server would not take it. It is kept, and tried again only when asked. */
  readonly refused?: string;
}

export interface LogbookState {
  /** The server's entries of each build, oldest first. */
  readonly known: Readonly<Record<string, readonly Entry[]>>;
  readonly lists: Readonly<Record<string, readonly BuildSummary[]>>;
}

const initialState: LogbookState = { known: {}, lists: {} };

const logbookSlice = createSlice({
  name: 'logbook',
  initialState,
  reducers: {
    /** Entries that the server has, in its order. Those already known are passed over. */
    received: (state, { payload }: PayloadAction<{ buildId: string; entries: readonly Entry[] }>) => {
      const before = state.known[payload.buildId] ?? [];
      const ids = new Set(before.map((entry) => entry.id));
      const fresh = payload.entries.filter((entry) => !ids.has(entry.id));
      if (fresh.length === 0) return state;
      const entries = [...before, ...fresh].sort((a, b) => (a.seq ?? Infinity) - (b.seq ?? Infinity));
      return { ...state, known: { ...state.known, [payload.buildId]: entries } };
    },
    listed: (state, { payload }: PayloadAction<{ shopId: string; builds: readonly BuildSummary[] }>) => ({
      ...state,
      lists: { ...state.lists, [payload.shopId]: payload.builds },
    }),
  },
  // Whoever takes up the device next does not see this shop's work. What still waits to be sent stays in the outbox.
  extraReducers: (builder) => builder.addCase(signedOut, () => initialState),
});

export const { received, listed } = logbookSlice.actions;
export const logbookReducer = logbookSlice.reducer;
