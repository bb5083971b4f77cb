import { type PayloadAction, createSlice } from '@reduxjs/toolkit';

export interface Account {
  readonly builderId: string;
  readonly builderName: string;
  readonly role: 'owner' | 'builder';
  readonly shopId: string;
  readonly shopName: string;
}

interface SessionState {
  /** Who works on this device. Kept when the session lapses, so that work can go on until the next sign-in. */
  readonly account: Account | null;
  /** True when the server has said that the sign-in no longer holds. */
  readonly lapsed: boolean;
}

const sessionSlice = createSlice({
  name: 'session',
  initialState: { account: null, lapsed: false } as SessionState,
  reducers: {
    signedIn: (_state, action: PayloadAction<Account>) => ({ account: action.payload, lapsed: false }),
    signedOut: () => ({ account: null, lapsed: false }),
    lapsed: (state) => ({ ...state, lapsed: true }),
  },
});

export const { signedIn, signedOut, lapsed } = sessionSlice.actions;
export const sessionReducer = sessionSlice.reducer;
