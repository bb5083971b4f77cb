import { type PayloadAction, createSelector, createSlice } from '@reduxjs/toolkit';

export type ThemeChoice = 'system' | 'dye' | 'sheet';

/** What a key of a pedal, ring or remote can be taught to do. */
export const TAUGHT = ['record', 'take', 'sync', 'zero', 'undo', 'next', 'other', 'repeat', 'more', 'less'] as const;
export type Taught = (typeof TAUGHT)[number];

/** How this device works at the engine: its own, whoever is signed in on it. */
export interface Settings {
  readonly theme: ThemeChoice;
  /** A short buzz, and a tick, when a reading is kept. */
  readonly buzz: boolean;
  readonly tick: boolean;
  /** Whose thumb works the keypad. */
  readonly hand: 'right' | 'left';
  /** Instruction, last reading and wheel are legible at three metres. */
  readonly fromAfar: boolean;
  /** Instruction and read-back are spoken. */
  readonly spoken: boolean;
  /** The key that does it, as `KeyboardEvent.code` names it. */
  readonly keys: Readonly<Partial<Record<Taught, string>>>;
  /** It was said once what does not work without https. */
  readonly toldOfHttps: boolean;
  /** Printers that were checked: how much larger than drawn each prints, across and along the sheet. */
  readonly printers: readonly { readonly name: string; readonly across: number; readonly along: number }[];
  /** The one that is printed on; null for one that was not checked. */
  readonly printer: string | null;
  /** Where the work was last: an app on the home screen goes on there. */
  readonly last: { readonly shopId: string; readonly buildId: string; readonly place: string } | null;
}

const DEFAULTS: Settings = {
  theme: 'system',
  buzz: true,
  tick: true,
  hand: 'right',
  fromAfar: false,
  spoken: false,
  keys: {},
  toldOfHttps: false,
  printers: [],
  printer: null,
  last: null,
};

const settingsSlice = createSlice({
  name: 'settings',
  initialState: DEFAULTS,
  reducers: {
    changed: (state, { payload }: PayloadAction<Partial<Settings>>) => ({ ...state, ...payload }),
  },
});

export const { changed: settingsChanged } = settingsSlice.actions;
export const settingsReducer = settingsSlice.reducer;

/** The settings of this device; what an earlier version did not know yet is as it is at first. */
export const selectSettings = createSelector(
  (state: { readonly settings: Partial<Settings> }) => state.settings,
  (kept): Settings => ({ ...DEFAULTS, ...kept }),
);
