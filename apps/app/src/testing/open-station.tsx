import { act, fireEvent, render, screen, within } from '@testing-library/react-native';
import { type ReactNode, Suspense } from 'react';
import { Dimensions } from 'react-native';
import { Provider } from 'react-redux';
import { checkEntry, isUndoable } from '@yosoku/core/record/check-entry';
import type { Entry } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { BUILD } from '@yosoku/core/testing/book';
import { provideArithmetic } from '@/store/arithmetic';
import { received } from '@/store/logbook-slice';
import { reached } from '@/store/outbox-slice';
import { type PracticeRun, practiceBegun } from '@/store/practice-slice';
import { selectEntries, selectReport } from '@/store/selectors';
import { type Account, signedIn } from '@/store/session-slice';
import { type Settings, settingsChanged } from '@/store/settings-slice';
import { makeStore } from '@/store/store';
import { StationScreen } from '@/shell/station-screen';
import type { Place } from '@/shell/station-line';
import { ACCOUNT } from './account';
import { keyDown } from './setup';

/** Where the router was told to go, newest last. */
const mockWent: string[] = [];
const mockBuild = BUILD;

jest.mock('expo-router', () => {
  const { Text } = jest.requireActual<typeof import('react-native')>('react-native');
  const go = (to: string): void => void mockWent.push(to);
  return {
    Link: ({ href, children, ...rest }: { href: string; children: ReactNode }) => (
      <Text role="link" onPress={() => go(href)} {...rest}>
        {children}
      </Text>
    ),
    Redirect: () => null,
    useRouter: () => ({ push: go, replace: go, back: () => go('back') }),
    useLocalSearchParams: () => ({ id: mockBuild }),
  };
});
jest.mock('@/sync/fetch-builds', () => ({ fetchEntries: async () => 'unreachable' }));

/** A phone, or a screen on the bench. */
export const PHONE = { width: 390, height: 844 };
export const WIDE = { width: 1280, height: 800 };

interface Opened {
  readonly entries: () => readonly Entry[];
  /** The newest entry of the logbook. */
  readonly last: () => Entry | undefined;
  readonly report: () => NonNullable<ReturnType<typeof selectReport>>;
  readonly press: (testID: string) => Promise<void>;
  readonly pressText: (text: string | RegExp) => Promise<void>;
  /** Takes an answer of a choice by its words. */
  readonly choose: (testID: string, label: string) => Promise<void>;
  /** Presses keys of the bench keyboard, one after the other. */
  readonly keys: (...keys: readonly string[]) => Promise<void>;
  readonly type: (testID: string, text: string) => Promise<void>;
  /** Types a reading of the wheel on the keypad of a phone and records it: `'20', 'before'`. */
  readonly reads: (figures: string, side: string) => Promise<void>;
  /** Entries of another device come in from the server. */
  readonly receives: (entries: readonly Entry[]) => Promise<void>;
  /** The screen is turned, zoomed, or another window. */
  readonly become: (size: typeof PHONE) => Promise<void>;
  /** Where it was gone to from here, newest last. */
  readonly went: () => readonly string[];
  /** All words on the screen, one line each. */
  readonly words: () => string;
}

const wordsOf = (node: ReturnType<typeof screen.toJSON> | string): string[] => {
  if (node === null) return [];
  if (typeof node === 'string') return [node];
  if (Array.isArray(node)) return node.flatMap(wordsOf);
  const inside = (node.children ?? []).flatMap((child) => wordsOf(child as never));
  return node.type === 'Text' ? [inside.join('')] : inside;
};

function become(size: typeof PHONE): void {
  const screen = { ...size, scale: 1, fontScale: 1 };
  Dimensions.set({ window: screen, screen });
}

/**
 * Opens a station on a build's logbook as the screen of a device without a network, and gives hands and eyes to it.
 * @param entries of the build, as `book()` of the core writes them.
 */
export async function openStation(
  here: Place,
  Station: () => ReactNode,
  entries: readonly Entry[],
  {
    size = PHONE,
    offline = false,
    account = {},
    settings = {},
    practice = null,
  }: {
    readonly size?: typeof PHONE;
    readonly offline?: boolean;
    readonly account?: Partial<Account>;
    readonly settings?: Partial<Settings>;
    /** The logbook is that of a practice. */
    readonly practice?: Omit<PracticeRun, 'id' | 'builderId' | 'entries'> | null;
  } = {},
): Promise<Opened> {
  become(size);
  // What no device would have kept shows nothing.
  expect(entries.map(checkEntry).filter((trouble) => trouble !== null)).toEqual([]);
  // Pictures that turn stand still: what is looked at is what stands there in the end.
  jest.useFakeTimers({ doNotFake: ['nextTick', 'queueMicrotask', 'setImmediate'] });
  mockWent.length = 0;
  provideArithmetic({ derive, checkEntry, isUndoable });
  const store = makeStore();
  store.dispatch(signedIn({ ...ACCOUNT, ...account }));
  store.dispatch(settingsChanged(settings));
  store.dispatch(reached(!offline));
  store.dispatch(received({ buildId: BUILD, entries: entries.map((entry, at) => ({ ...entry, seq: at + 1 })) }));
  if (practice)
    store.dispatch(practiceBegun({ ...practice, id: BUILD, builderId: ACCOUNT.builderId, entries: [...entries] }));
  render(
    <Provider store={store}>
      <Suspense fallback={null}>
        <StationScreen here={here}>
          <Station />
        </StationScreen>
      </Suspense>
    </Provider>,
  );
  await act(async () => undefined);
  const all = () => selectEntries(store.getState(), BUILD);
  /** Does it and lets the screen follow, also where it threw: then it throws afterwards. */
  const done = async (what: () => void): Promise<void> => {
    let thrown: unknown = null;
    await act(async () => {
      try {
        what();
      } catch (error) {
        thrown = error;
      }
    });
    if (thrown !== null) throw thrown;
  };
  return {
    entries: all,
    last: () => all().at(-1),
    report: () => {
      const report = selectReport(store.getState(), BUILD);
      if (!report) throw new Error('the logbook says what engine it is');
      return report;
    },
    press: (testID) => done(() => fireEvent.press(screen.getByTestId(testID))),
    pressText: (text) => done(() => fireEvent.press(screen.getByText(text))),
    choose: (testID, label) => done(() => fireEvent.press(within(screen.getByTestId(testID)).getByText(label))),
    keys: async (...keys) => {
      for (const key of keys) await done(() => keyDown(key));
    },
    type: (testID, text) => done(() => fireEvent.changeText(screen.getByTestId(testID), text)),
    reads: async (figures, side) => {
      for (const figure of figures) await done(() => fireEvent.press(screen.getByTestId(`key-${figure}`)));
      await done(() => fireEvent.press(screen.getByTestId(`side-${side}`)));
      await done(() => fireEvent.press(screen.getByTestId('record')));
    },
    receives: (more) =>
      done(() => {
        const seq = all().length + 1;
        store.dispatch(received({ buildId: BUILD, entries: more.map((entry, at) => ({ ...entry, seq: seq + at })) }));
      }),
    become: (next) => done(() => become(next)),
    went: () => [...mockWent],
    words: () => wordsOf(screen.toJSON()).join('\n'),
  };
}
