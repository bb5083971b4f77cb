import { combineReducers, configureStore, createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { get, set } from 'idb-keyval';
import { useDispatch, useSelector } from 'react-redux';
import { REMEMBER_REHYDRATED, rememberEnhancer, rememberReducer } from 'redux-remember';
import { draftsReducer } from './drafts-slice';
import { logbookReducer } from './logbook-slice';
import { delivered, outboxReducer, recorded, recovered, refused, triedAgain } from './outbox-slice';
import { dropWaiting, keepWaiting, readWaiting } from './outbox-storage';
import { practiceReducer } from './practice-slice';
import { sessionReducer } from './session-slice';
import { settingsReducer } from './settings-slice';

/** What is read back from this device at the next visit. The outbox has a storage of its own. */
const REMEMBERED = ['session', 'logbook', 'drafts', 'settings', 'practice'];
const THROTTLE_MS = 50;

const rootReducer = combineReducers({
  session: sessionReducer,
  logbook: logbookReducer,
  outbox: outboxReducer,
  drafts: draftsReducer,
  settings: settingsReducer,
  practice: practiceReducer,
  /** False until this device's memory has been read. */
  awake: (awake = false, action: { type: string }) => awake || action.type === REMEMBER_REHYDRATED,
});

export type RootState = ReturnType<typeof rootReducer>;

const device = {
  getItem: (key: string) => get(key),
  setItem: (key: string, value: unknown) => set(key, value),
};

export function makeStore() {
  const keeper = createListenerMiddleware<RootState>();
  keeper.startListening({
    matcher: isAnyOf(recorded, refused, triedAgain),
    effect: (action, api) =>
      recorded.match(action) ? keepWaiting(action.payload) : keepWaiting(api.getState().outbox.waiting),
  });
  keeper.startListening({ actionCreator: delivered, effect: (action) => dropWaiting(action.payload) });

  const canRemember = typeof indexedDB !== 'undefined';
  const store = configureStore({
    reducer: canRemember ? rememberReducer(rootReducer) : rootReducer,
    middleware: (defaults) =>
      // The deep checks walk every entry of every logbook at every action; they cost more than they find here.
      defaults({ serializableCheck: false, immutableCheck: false }).prepend(keeper.middleware),
    enhancers: (defaults) =>
      canRemember
        ? defaults().concat(rememberEnhancer(device, REMEMBERED, { prefix: 'yosoku-', persistThrottle: THROTTLE_MS }))
        : defaults(),
  });
  void readWaiting().then((waiting) => store.dispatch(recovered(waiting)));
  return store;
}

export type Store = ReturnType<typeof makeStore>;
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
