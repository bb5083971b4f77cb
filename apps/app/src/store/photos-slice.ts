import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { PhotoName } from './photo-storage';

/** A picture on this device that the server has not got yet. */
interface WaitingPhoto extends PhotoName {
  /** Why the server would not take it. It is kept, and tried again only when asked. */
  readonly refused?: string;
}

interface PhotosState {
  readonly waiting: readonly WaitingPhoto[];
}

const initialState: PhotosState = { waiting: [] };
const isSame = (a: PhotoName, b: PhotoName): boolean => a.buildId === b.buildId && a.picture === b.picture;

const photosSlice = createSlice({
  name: 'photos',
  initialState,
  reducers: {
    /** Pictures that are kept on this device now, or were left behind by an earlier visit. */
    photosWait: (state, { payload }: PayloadAction<readonly WaitingPhoto[]>) => ({
      waiting: [...state.waiting, ...payload.filter((each) => !state.waiting.some((here) => isSame(here, each)))],
    }),
    photoDelivered: (state, { payload }: PayloadAction<PhotoName>) => ({
      waiting: state.waiting.filter((each) => !isSame(each, payload)),
    }),
    photoRefused: (
      state,
      { payload: { reason, ...name } }: PayloadAction<PhotoName & { readonly reason: string }>,
    ) => ({
      waiting: state.waiting.map((each) => (isSame(each, name) ? { ...each, refused: reason } : each)),
    }),
    photosTriedAgain: (state) => ({
      waiting: state.waiting.map(({ shopId, buildId, picture }) => ({ shopId, buildId, picture })),
    }),
  },
});

export const { photosWait, photoDelivered, photoRefused, photosTriedAgain } = photosSlice.actions;
export const photosReducer = photosSlice.reducer;
