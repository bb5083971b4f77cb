import { Link, useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { useStore } from 'react-redux';
import { EXERCISES, EXERCISE_NAMES, type ExerciseName } from '@yosoku/core/practice/exercises';
import { type PracticeBase, PRACTICE_SIX, baseOf } from '@yosoku/core/practice/scenario';
import { dayWords } from '@/logbook/closed';
import { type PracticeRun, practiceDropped } from '@/store/practice-slice';
import { selectBuilds, selectReport } from '@/store/selectors';
import { type RootState, type Store, useAppDispatch, useAppSelector } from '@/store/store';
import { fetchBuilds, fetchEntries } from '@/sync/fetch-builds';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { Words } from '@/ui/words';
import { beginPractice, practicePlace } from './begin-practice';
import { FreePlay } from './free-play';
import { sendScores } from './send-scores';

/** Exercises in the order in which they are learned. */
const GRADED = EXERCISE_NAMES.filter((name) => name !== 'free');
const MADE_UP = 'made-up';

/** Practice: the exercises, what was scored in them, and what is not finished yet. */
export function PracticeList() {
  const router = useRouter();
  const store = useStore<RootState>() as unknown as Store;
  const { begin, seed: seedGiven } = useLocalSearchParams<{ begin?: string; seed?: string }>();
  // `?seed=7`: everybody who follows such an address meets the same engine.
  const seed = /^[1-9]\d{0,8}$/.test(seedGiven ?? '') ? Number(seedGiven) : undefined;
  const account = useAppSelector((state) => state.session.account);
  const runs = useAppSelector((state) => state.practice.runs);
  const [base, setBase] = useState<PracticeBase>(PRACTICE_SIX);
  const begun = useRef(false);
  const start = (exercise: ExerciseName, own?: Parameters<typeof beginPractice>[1]['own']): void => {
    if (account) router.push(beginPractice(store, { exercise, base, builderId: account.builderId, own, seed }));
  };
  useEffect(() => {
    void sendScores(store);
  }, [store]);
  // A newcomer is led straight into the first one.
  useEffect(() => {
    const wanted = EXERCISE_NAMES.find((name) => name === begin);
    if (!wanted || begun.current || !account) return;
    begun.current = true;
    router.replace(beginPractice(store, { exercise: wanted, base: PRACTICE_SIX, builderId: account.builderId, seed }));
  }, [account, begin, router, seed, store]);
  const open = Object.values(runs)
    .filter(({ doneAt }) => doneAt === null)
    .sort((a, b) => (a.begunAt < b.begunAt ? 1 : -1));
  return (
    <Page title="Practice" back={{ href: '/', label: 'Builds' }}>
      <Words>
        An engine that is not there, to turn, measure and set as you would a real one: same stations, same keypad. What
        is wrong with it you are told at the end. Nothing of it ever stands among the builds.
      </Words>
      {open.length > 0 ? (
        <View role="list" aria-label="Not finished" className="border-t border-hairline">
          {open.map((run) => (
            <OpenRun key={run.id} run={run} />
          ))}
        </View>
      ) : null}
      <View role="list" aria-label="Exercises" className="border-t border-hairline">
        {GRADED.map((name) => (
          <ExerciseLine key={name} name={name} onStart={() => start(name)} />
        ))}
      </View>
      <More label="On which engine" testID="more-engine">
        <EngineChoice base={base} onBase={setBase} />
      </More>
      <More label="Free play" testID="more-free">
        <FreePlay base={base} onStart={(own) => start('free', own)} />
      </More>
    </Page>
  );
}

function OpenRun({ run }: { readonly run: PracticeRun }) {
  const dispatch = useAppDispatch();
  return (
    <View role="listitem" className="min-h-[60px] flex-row items-center justify-between gap-3 border-b border-hairline">
      <Link
        href={practicePlace(run)}
        testID="go-on"
        className="shrink grow py-4 font-medium text-[18px] text-brass"
      >{`Go on: ${EXERCISES[run.exercise].title}, on the ${run.scenario.base.name}`}</Link>
      <QuietButton label="Drop it" testID="drop-run" onPress={() => dispatch(practiceDropped(run.id))} />
    </View>
  );
}

const LEVELS = ['', 'first steps', 'the basics', 'the trade', 'with a fault', 'the test'] as const;

function ExerciseLine({ name, onStart }: { readonly name: ExerciseName; readonly onStart: () => void }) {
  const { title, task, level, minutes } = EXERCISES[name];
  const scores = useAppSelector((state) => state.practice.scores);
  const unsent = useAppSelector((state) => state.practice.unsent);
  const own = [...unsent, ...scores].filter(({ exercise }) => exercise === name);
  const best = own.reduce((most, each) => (each.score > (most?.score ?? -1) ? each : most), own[0]);
  return (
    <View role="listitem" testID={`exercise-${name}`} className="border-b border-hairline py-2">
      <View className="flex-row flex-wrap items-center justify-between gap-x-3">
        <Words look="heading" level={2} className="shrink">
          {title}
        </Words>
        <QuietButton label="Begin" testID={`begin-${name}`} onPress={onStart} />
      </View>
      <Words>{task}</Words>
      <Words look="soft">
        {`${'▮'.repeat(level)}${'▯'.repeat(5 - level)} ${LEVELS[level]} · about ${minutes} min · ${
          best
            ? `best ${best.score} of 100, ${dayWords(best.doneAt)}, ${own.length === 1 ? 'done once' : `done ${own.length} times`}`
            : 'not done yet'
        }`}
      </Words>
    </View>
  );
}

/** The engine that the exercises are made on: the invented one, or one of the shop's. */
function EngineChoice({
  base,
  onBase,
}: {
  readonly base: PracticeBase;
  readonly onBase: (base: PracticeBase) => void;
}) {
  const store = useStore<RootState>() as unknown as Store;
  const builds = useAppSelector(selectBuilds);
  const [chosen, setChosen] = useState<string>(MADE_UP);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    void fetchBuilds(store);
  }, [store]);
  const choose = async (id: string): Promise<void> => {
    setChosen(id);
    setTrouble(null);
    if (id === MADE_UP) {
      onBase(PRACTICE_SIX);
      return;
    }
    await fetchEntries(store, id);
    const report = selectReport(store.getState(), id);
    if (report) onBase(baseOf(report));
    else {
      setTrouble('That build is not on this device, and the server cannot be reached. The made-up engine is taken.');
      setChosen(MADE_UP);
      onBase(PRACTICE_SIX);
    }
  };
  const options = [
    { value: MADE_UP, label: 'The made-up six' },
    ...builds.slice(0, 12).map(({ id, name }) => ({ value: id, label: name })),
  ];
  return (
    <View className="gap-2">
      <Choice
        lines
        testID="practice-engine-choice"
        label="Practise on"
        options={options}
        value={chosen}
        onChange={(id) => void choose(id)}
        hint={`${base.name}: ${base.engine.cylinders} cylinders, ${base.engine.cams === 'twin' ? 'twin cams' : 'one cam'}, runs ${base.engine.rotation}, a ${base.ring.ring} wheel. Its own readings stay untouched.`}
      />
      {trouble ? <Notice kind="warning" message={trouble} /> : null}
    </View>
  );
}
