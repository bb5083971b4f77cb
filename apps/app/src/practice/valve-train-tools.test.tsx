import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { makeScenario } from '@yosoku/core/practice/make-scenario';
import { PRACTICE_SIX } from '@yosoku/core/practice/scenario';
import { met } from '@yosoku/core/simulation/whole-engine';
import { HandTools } from './hand-tools';
import { type LiveEngine, makeLiveEngine } from './live-engine';
import { useRested } from './use-live-engine';

function Tools({ live }: { readonly live: LiveEngine }) {
  const stand = useRested(live);
  const nothing = (): void => undefined;
  return (
    <HandTools live={live} stand={stand} units="in" width={390} hands="crank" onHands={nothing} onTrouble={nothing} />
  );
}

/** The tools of an exercise, with hands that press them. */
function atTheEngine(name: 'right-pushrod' | 'end-play', seed: number) {
  const { engine, advance, mount, crank } = makeScenario(name, PRACTICE_SIX, seed);
  const live = makeLiveEngine(engine, met(engine, advance, mount, crank), () => true);
  render(<Tools live={live} />);
  const press = (tool: string): void => {
    act(() => {
      fireEvent.press(screen.getByTestId(`tool-${tool}`));
      // At rest a moment later.
      jest.advanceTimersByTime(400);
    });
  };
  return { press, stand: live.stand, engine };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('a tip shows nothing until it was turned over with that length, and nothing again when the length is changed', () => {
  const { press, stand, engine } = atTheEngine('right-pushrod', 4);
  expect(screen.getByTestId('pushrod-shows')).toHaveTextContent(/the tip is freshly marked\. Turn it over\.$/);
  expect(screen.queryByTestId('tip-picture')).toBeNull();
  press('over');
  expect(screen.getByTestId('tip-picture').props['aria-label']).toMatch(/a pattern 0\.\d+ in wide/);
  const longer = (engine.rockers?.right ?? 0) > (stand().rockers?.length ?? 0);
  expect(screen.getByTestId('pushrod-shows')).toHaveTextContent(longer ? /roller stands above/ : /roller stands below/);
  press('much-longer');
  expect(screen.queryByTestId('tip-picture')).toBeNull();
});

test('pulled hard the cover gives: let go, the needle stands off its zero; filed and shimmed, the play is another', () => {
  const { press, stand, engine } = atTheEngine('end-play', 4);
  const shown = (): number => Number(/shows (\d+\.\d+) in/.exec(screen.getByTestId('play-shows').props.children)?.[1]);
  press('gentle');
  const play = shown();
  expect(play).toBeCloseTo((engine.endPlay?.play ?? 0) / 25.4, 3);
  press('let-go');
  expect(shown()).toBe(0);
  press('hard');
  expect(shown()).toBeGreaterThan(play);
  press('let-go');
  expect(shown()).toBeGreaterThan(0);
  press('file');
  press('file');
  press('shim');
  press('gentle');
  expect(shown()).toBeCloseTo(play + 0.001, 3);
  expect(stand().endPlay?.pull).toBe('gentle');
});
