import { type PayloadAction, createSlice } from '@reduxjs/toolkit';

export type ThemeChoice = 'system' | 'dye' | 'sheet';

const settingsSlice = createSlice({
  name: 'settings',
  initialState: { theme: 'system' as ThemeChoice },
  reducers: {
    themeChosen: (state, action: PayloadAction<ThemeChoice>) => ({ ...state, theme: action.payload }),
  },
});

export const { themeChosen } = settingsSlice.actions;
export const settingsReducer = settingsSlice.reducer;
