import { screen } from '@testing-library/react-native';
import { makeScenario } from '@yosoku/core/practice/make-scenario';
import { met } from '@yosoku/core/simulation/whole-engine';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { DecideStation } from '@/features/decide/decide-station';
import { PRACTICE_SIX } from '@yosoku/core/practice/scenario';

jest.mock('@/practice/all-practice', () => {
  const { Text } = jest.requireActual<typeof import('react-native')>('react-native');
  return { PracticeEngine: () => <Text testID="engine">the engine</Text> };
});

/** A practice on a phone: TDC proved, a centreline read, the closing check still to be made. */
function practised() {
  const job = book();
  job.card();
  job.pair(job.proved(), 64, 155);
  const scenario = makeScenario('find-tdc', PRACTICE_SIX, 7);
  const practice = {
    exercise: 'find-tdc',
    scenario,
    trail: {},
    stand: met(scenario.engine, scenario.advance, scenario.mount, scenario.crank),
    hints: 0,
    answer: null,
    begunAt: '2026-03-14T09:26:53Z',
    showing: 'station',
    doneAt: null,
    told: null,
    settings: {},
  } as const;
  return openStation('decide', DecideStation, job.entries, { practice });
}

test('who looks at the practice engine in the middle of a closing check comes back to it; what is typed meanwhile goes nowhere', async () => {
  const here = await practised();
  await here.press('closing');
  await here.press('key-2');
  const sentence = String(screen.getByTestId('sentence').props.children);
  await here.press('show-engine');
  screen.getByTestId('engine');
  expect(here.words()).not.toContain(sentence);
  const before = here.entries().length;
  await here.keys('9', 'Enter');
  expect(here.entries()).toHaveLength(before);
  await here.press('show-station');
  expect(screen.getByTestId('sentence')).toHaveTextContent(sentence);
  await here.reads('3¾', 'before');
  expect(here.last()).toMatchObject({ kind: 'zero.reading', body: { closing: true, wheel: { shows: 23.75 } } });
});
