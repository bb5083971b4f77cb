import {
  type Dispatch,
  combineReducers,
  configureStore,
  createAction,
  createListenerMiddleware,
  isAnyOf,
} from '@reduxjs/toolkit';
import { get, set } from 'idb-keyval';
import { useDispatch, useSelector } from 'react-redux';
import { REMEMBER_REHYDRATED, rememberEnhancer, rememberReducer } from 'redux-remember';
import { openStore } from './device-store';
import { draftsReducer } from './drafts-slice';
import { type LogbookState, logbookReducer } from './logbook-slice';
import { readLogbooks, writeLogbooks } from './logbook-storage';
import {
  delivered,
  keptOnDevice,
  outboxReducer,
  recorded,
  recovered,
  refused,
  triedAgain,
  written,
} from './outbox-slice';
import { forgetSeenPhotos, photoArrived, readWaitingPhotos } from './photo-storage';
import { photoDelivered, photosReducer, photosWait } from './photos-slice';
import { askToPersist, dropWaiting, keepWaiting, readWaiting } from './outbox-storage';
import { practiceReducer } from './practice-slice';
import { sessionReducer, signedOut } from './session-slice';
import { settingsReducer } from './settings-slice';

/** What is read back from this device at the next visit. The outbox and the pictures have storages of their own. */
const REMEMBERED = ['session', 'logbook', 'drafts', 'settings', 'practice'];
const THROTTLE_MS = 50;

/** All of this device's memory has been read. */
const awoken = createAction('awoken');

const rootReducer = combineReducers({
  session: sessionReducer,
  logbook: logbookReducer,
  outbox: outboxReducer,
  photos: photosReducer,
  drafts: draftsReducer,
  settings: settingsReducer,
  practice: practiceReducer,
  /** False until this device's memory has been read. */
  awake: (awake = false, action: { type: string }) => awake || awoken.match(action),
  /** What the library keeps has been read; what waits to be sent has not yet. */
  readBack: (readBack = false, action: { type: string }) => readBack || action.type === REMEMBER_REHYDRATED,
});

export type RootState = ReturnType<typeof rootReducer>;

const PREFIX = 'yosoku-';
const LOGBOOK = 'logbook';
/** Where `idb-keyval` keeps what is given no store: earlier versions left it there. */
const memory = openStore('keyval-store', 'keyval') ?? undefined;
/** Each part of the memory is a text under its key; logbooks, which grow, have a storage of their own. */
const device = {
  getItem: (key: string) => (key === PREFIX + LOGBOOK ? readLogbooks() : get(key, memory)),
  setItem: (key: string, value: unknown) =>
    key === PREFIX + LOGBOOK ? writeLogbooks(value as LogbookState) : set(key, value, memory),
};
const remembering = {
  prefix: PREFIX,
  persistThrottle: THROTTLE_MS,
  serialize: (part: unknown, key: string) => (key === LOGBOOK ? part : JSON.stringify(part)),
  unserialize: (kept: unknown) => (typeof kept === 'string' ? JSON.parse(kept) : kept),
};

/** Takes up what an earlier visit left behind unsent. */
async function recover({ dispatch }: { readonly dispatch: Dispatch }): Promise<void> {
  await readWaiting().then(
    (waiting) => dispatch(recovered(waiting)),
    () => dispatch(keptOnDevice(false)),
  );
  await readWaitingPhotos().then(
    (waiting) => dispatch(photosWait(waiting)),
    () => undefined,
  );
  dispatch(awoken());
}

export function makeStore() {
  const keeper = createListenerMiddleware<RootState>();
  keeper.startListening({
    matcher: isAnyOf(recorded, refused, triedAgain),
    effect: async (action, { dispatch, getState }) => {
      askToPersist();
      try {
        // After a failure everything is tried: what could not be kept then may find room now.
        const everything = !recorded.match(action) || getState().outbox.unkept;
        await keepWaiting(everything ? getState().outbox.waiting : action.payload);
        dispatch(keptOnDevice(true));
      } catch {
        dispatch(keptOnDevice(false));
      }
      if (recorded.match(action)) dispatch(written(action.payload));
    },
  });
  keeper.startListening({
    actionCreator: delivered,
    effect: async (action, { dispatch, getState }) => {
      await dropWaiting(action.payload).catch(() => undefined);
      if (getState().outbox.waiting.length === 0) dispatch(keptOnDevice(true));
    },
  });

  keeper.startListening({
    actionCreator: photoDelivered,
    // At worst it is sent once more at the next visit, which is harmless.
    effect: ({ payload }) => photoArrived(payload).catch(() => undefined),
  });
  keeper.startListening({ actionCreator: signedOut, effect: () => forgetSeenPhotos().catch(() => undefined) });

  const canRemember = typeof indexedDB !== 'undefined';
  const store = configureStore({
    reducer: canRemember ? rememberReducer(rootReducer) : rootReducer,
    middleware: (defaults) =>
      // The deep checks walk every entry of every logbook at every action; they cost more than they find here.
      defaults({ serializableCheck: false, immutableCheck: false }).prepend(keeper.middleware),
    enhancers: (defaults) =>
      canRemember ? defaults().concat(rememberEnhancer(device, REMEMBERED, remembering)) : defaults(),
  });
  if (!canRemember) void recover(store);
  else {
    // Not before: with what is read back the library puts every part of the memory to where it stood when the reading began.
    const stop = store.subscribe(() => {
      if (!store.getState().readBack) return;
      stop();
      void recover(store);
    });
  }
  return store;
}

export type Store = ReturnType<typeof makeStore>;
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
