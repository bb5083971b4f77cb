import { checkEntry, isUndoable } from '@yosoku/core/record/check-entry';
import { entrySchema } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { PRACTICE_SIX } from '@yosoku/core/practice/scenario';
import { turned } from '@yosoku/core/simulation/whole-engine';
import { provideArithmetic } from '@/store/arithmetic';
import { practiceDone, practiceDropped, practised, scoresHeard, stood } from '@/store/practice-slice';
import { selectBuilds, selectEntries, selectOwnWaiting, selectReport } from '@/store/selectors';
import { signedIn, signedOut } from '@/store/session-slice';
import { makeStore } from '@/store/store';
import { beginPractice } from './begin-practice';
import { makeLiveEngine } from './live-engine';

const account = {
  builderId: '00000000-0000-4000-8000-000000000001',
  builderName: 'Mara',
  role: 'owner',
  shopId: 'shop-a',
  shopName: 'Fennel Yard',
  zeroRule: null,
  readRule: null,
} as const;

beforeAll(() => provideArithmetic({ derive, checkEntry, isUndoable }));

function begun() {
  const store = makeStore();
  store.dispatch(signedIn(account));
  const href = beginPractice(store, { exercise: 'centreline', base: PRACTICE_SIX, builderId: account.builderId });
  const run = Object.values(store.getState().practice.runs)[0];
  if (!run) throw new Error('nothing was begun');
  return { store, href, run };
}

test('a practice has a logbook of its own: nothing of it waits to be sent, or stands among the builds', () => {
  const { store, href, run } = begun();
  expect(href).toBe(`/builds/${run.id}/read`);
  const entry = entrySchema.parse({
    id: '00000000-0000-4000-8000-00000000aaaa',
    buildId: run.id,
    builderId: account.builderId,
    takenAt: '2026-03-14T09:26:53Z',
    kind: 'prepare.checked',
    body: { replaces: null, check: 'wheel-tight', result: 'done' },
  });
  store.dispatch(practised({ entry, stand: run.stand }));
  expect(selectEntries(store.getState(), run.id)).toHaveLength(run.entries.length + 1);
  expect(selectReport(store.getState(), run.id)?.build.practice).toBe(true);
  expect(selectOwnWaiting(store.getState())).toEqual([]);
  expect(selectBuilds(store.getState())).toEqual([]);
  // An entry of another build does not get in.
  store.dispatch(practised({ entry: { ...entry, buildId: 'elsewhere' }, stand: run.stand }));
  expect(Object.keys(store.getState().practice.runs)).toEqual([run.id]);
  store.dispatch(practiceDropped(run.id));
  expect(selectEntries(store.getState(), run.id)).toEqual([]);
});

test('a score waits until the server has it; whoever signs out takes his practice along', () => {
  const { store, run } = begun();
  const score = { id: 's', exercise: 'centreline', score: 80, hints: 0, doneAt: '2026-03-14T09:26:53Z' } as const;
  const told = { rows: [], told: '', readings: [], marks: [], score: 80 };
  store.dispatch(practiceDone({ id: run.id, at: score.doneAt, told, score }));
  expect(store.getState().practice).toMatchObject({ unsent: [score], scores: [] });
  store.dispatch(scoresHeard([score]));
  expect(store.getState().practice).toMatchObject({ unsent: [], scores: [score] });
  store.dispatch(stood({ id: run.id, stand: { ...run.stand, crank: 5 } }));
  expect(store.getState().practice.runs[run.id]?.stand.crank).toBe(5);
  store.dispatch(signedOut());
  expect(store.getState().practice).toEqual({ runs: {}, scores: [], unsent: [] });
});

describe('the engine under the hand', () => {
  beforeEach(() => {
    jest.useFakeTimers();
    let at = 0;
    global.requestAnimationFrame = (each) => setTimeout(() => each((at += 16)), 16) as unknown as number;
  });
  afterEach(() => jest.useRealTimers());

  test('rolls the whole way, frame by frame, and says so when it has come to rest', () => {
    const { run } = begun();
    const live = makeLiveEngine(run.scenario.engine, run.stand, () => false);
    const frames: number[] = [];
    let rested = NaN;
    live.follow(({ crank }) => frames.push(crank));
    live.onRest(({ crank }) => (rested = crank));
    live.roll(90);
    jest.advanceTimersByTime(5_000);
    const whole = turned(run.scenario.engine, run.stand, 90);
    expect(rested).toBeCloseTo(whole.crank, 6);
    expect(live.stand().lifted.intake).toBeCloseTo(whole.lifted.intake, 6);
    expect(frames.length).toBeGreaterThan(12);
    frames.reduce((before, now) => {
      expect(now).toBeGreaterThan(before);
      expect(now - before).toBeLessThan(8.001);
      return now;
    }, run.stand.crank);
  });

  test('at once for whoever wants less motion; the other way ends a turn', () => {
    const { run } = begun();
    const still = makeLiveEngine(run.scenario.engine, run.stand, () => true);
    still.roll(90);
    expect(still.stand().crank).toBeCloseTo(run.stand.crank + 90, 6);
    const live = makeLiveEngine(run.scenario.engine, run.stand, () => false);
    live.roll(90);
    jest.advanceTimersByTime(50);
    const turnedTo = live.stand().crank;
    live.roll(-1);
    jest.advanceTimersByTime(5_000);
    expect(live.stand().crank).toBeCloseTo(turnedTo - 1, 6);
  });
});
