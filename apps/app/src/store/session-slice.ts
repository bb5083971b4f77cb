import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { ZeroMethodName } from '@yosoku/core/tdc/zero-methods';
import type { RulingMethod } from '@yosoku/core/measure/read-methods';

export interface Account {
  readonly builderId: string;
  readonly builderName: string;
  readonly role: 'owner' | 'builder';
  readonly shopId: string;
  readonly shopName: string;
  /** The shop’s own rule for finding TDC, or null. */
  readonly zeroRule: ZeroMethodName | null;
  /** The shop’s own rule for reading the cam, or null. */
  readonly readRule: RulingMethod | null;
}

export type ShopRules = Partial<Pick<Account, 'zeroRule' | 'readRule'>>;

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
    ruled: (state, { payload }: PayloadAction<ShopRules>) => ({
      ...state,
      account: state.account && { ...state.account, ...payload },
    }),
  },
});

export const { signedIn, signedOut, lapsed, ruled } = sessionSlice.actions;
export const sessionReducer = sessionSlice.reducer;
