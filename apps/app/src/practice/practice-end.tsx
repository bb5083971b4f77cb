import { TextLink } from '@/ui/text-link';
import Check from 'lucide-react-native/icons/check';
import X from 'lucide-react-native/icons/x';
import { useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { useStore } from 'react-redux';
import { CAUSES, CAUSE_NAMES } from '@yosoku/core/practice/causes';
import { type Debrief, debrief, isAnswered } from '@yosoku/core/practice/debrief';
import { EXERCISES } from '@yosoku/core/practice/exercises';
import type { Judgement } from '@yosoku/core/practice/judgement';
import type { Report } from '@yosoku/core/report/report';
import { newId } from '@/logbook/use-logbook';
import { type PracticeRun, answered, practiceDone } from '@/store/practice-slice';
import { selectReport } from '@/store/selectors';
import { type RootState, type Store, useAppDispatch, useAppSelector } from '@/store/store';
import { PrimaryButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { Page } from '@/ui/page';
import { useTheme } from '@/ui/theme';
import { type Tone, Words } from '@/ui/words';
import { practicePlace } from './begin-practice';
import { sendScores } from './send-scores';

const BACK = { href: '/practice', label: 'Practice' } as const;

/** The end of an exercise: what is answered, then what was true. */
export function PracticeEnd() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const run = useAppSelector((state) => state.practice.runs[id]);
  const report = useAppSelector((state) => selectReport(state, id));
  if (!run || !report)
    return (
      <Page title="This practice is not here" back={BACK}>
        <Notice
          kind="warning"
          testID="missing"
          message="There is no such practice on this device."
          remedy="Practices stay on the device on which they were begun, and are dropped at sign-out. Begin a new one."
        />
      </Page>
    );
  return run.told === null ? <Asking run={run} report={report} /> : <Told run={run} told={run.told} />;
}

const ANSWERS = CAUSE_NAMES.map((value) => ({ value, label: CAUSES[value].words }));

function Asking({ run, report }: { readonly run: PracticeRun; readonly report: Report }) {
  const dispatch = useAppDispatch();
  const store = useStore<RootState>() as unknown as Store;
  const { title, task, goal } = EXERCISES[run.exercise];
  const ready = isAnswered(run.exercise, report, run.answer);
  const finish = (): void => {
    const at = new Date().toISOString();
    const told = debrief(run, report);
    const { score } = told;
    const kept = score === null ? null : { id: newId(), exercise: run.exercise, score, hints: run.hints, doneAt: at };
    dispatch(practiceDone({ id: run.id, at, told, score: kept }));
    void sendScores(store);
  };
  return (
    <Page title={title} back={{ href: practicePlace(run), label: 'Back to the engine' }}>
      <Words>{task}</Words>
      {goal === 'cause' ? (
        <Choice
          lines
          testID="answer"
          label="What is wrong with it?"
          options={ANSWERS}
          value={run.answer ?? undefined}
          onChange={(answer) => dispatch(answered({ id: run.id, answer }))}
        />
      ) : null}
      <Words look="label" testID="so-far">
        {soFar(run, report)}
      </Words>
      {ready ? null : (
        <Notice
          kind="warning"
          message="What is asked has not been answered yet."
          remedy="You can look at the truth all the same: what is not answered brings no marks."
        />
      )}
      <PrimaryButton testID="show-truth" label="Show me the truth" onPress={finish} />
    </Page>
  );
}

/** What the logbook says by now. */
function soFar({ exercise }: PracticeRun, { zero, verdict, read, trials, lash, rockers, prepare }: Report): string {
  const { goal } = EXERCISES[exercise];
  if (goal === 'lash') return lash.job?.countWords ?? 'No valve is set yet.';
  if (goal === 'pushrod')
    return rockers.valves.find(({ valve }) => valve === 'intake')?.order?.words ?? 'No pushrod is ordered yet.';
  if (goal === 'play') return prepare.endPlay?.words ?? 'The end play is not measured yet.';
  if (goal === 'lobe') {
    const said = trials.at(-1)?.everyLobe.flatMap(({ words }) => words) ?? [];
    return `${read.everyLobe.read} of ${read.everyLobe.all} lobes read. ${said.join(' ')}`.trim();
  }
  if (goal === 'tdc') return zero.state === 'proved' ? 'TDC is found and proved.' : 'TDC is not proved yet.';
  return verdict.headline;
}

function Told({ run, told }: { readonly run: PracticeRun; readonly told: Debrief }) {
  const { title, goal } = EXERCISES[run.exercise];
  return (
    <Page title={`${title}: the truth`} back={BACK}>
      {told.score === null ? null : (
        <View className="flex-row items-baseline gap-3" testID="score">
          <Words look="title" tone="brass" className="font-figures-bold text-[56px] leading-[60px]">
            {told.score}
          </Words>
          <Words>of 100</Words>
        </View>
      )}
      {told.told ? (
        <Words look="sentence" testID="told">
          {told.told}
        </Words>
      ) : null}
      <TruthTable rows={told.rows} />
      {goal === 'free' ? null : <Marks marks={told.marks} />}
      <Readings readings={told.readings} />
      <View className="flex-row flex-wrap gap-x-6">
        <TextLink href={practicePlace(run)} className="py-3">
          Look at the engine again
        </TextLink>
        <TextLink href="/practice" testID="to-practice" className="py-3">
          The next exercise
        </TextLink>
      </View>
    </Page>
  );
}

function TruthTable({ rows }: { readonly rows: Debrief['rows'] }) {
  const theme = useTheme();
  return (
    <View role="list" aria-label="Truth and finding" testID="truth">
      {rows.map(({ what, truth, found, right }) => (
        <View key={what} role="listitem" className="flex-row gap-3 border-t border-hairline py-3">
          <View className="w-[22px] pt-1" aria-hidden>
            {right ? <Check size={20} color={theme.intake} strokeWidth={3} /> : <X size={20} color={theme.danger} />}
          </View>
          <View className="shrink grow gap-1">
            <Words look="label">{what}</Words>
            <Words>{`In truth: ${truth}.`}</Words>
            <Words>{`${right ? 'You found' : 'You had'}: ${found}.`}</Words>
          </View>
        </View>
      ))}
    </View>
  );
}

const Marks = ({ marks }: { readonly marks: Debrief['marks'] }) => (
  <View aria-label="Marks" className="border-t border-hairline pt-2">
    {marks.map(({ what, got, of }) => (
      <View key={what} className="flex-row justify-between py-1">
        <Words>{what}</Words>
        <Words look="figure">{of === 0 ? `−${-got}` : `${got} of ${of}`}</Words>
      </View>
    ))}
  </View>
);

const JUDGED: Readonly<Record<Judgement, { readonly words: string; readonly tone: Tone }>> = {
  helped: { words: 'helped', tone: 'intake' },
  'wrong-side': { words: 'from the wrong side', tone: 'danger' },
  misread: { words: 'misread', tone: 'danger' },
  spoiled: { words: 'spoiled by the engine', tone: 'exhaust' },
};

function Readings({ readings }: { readonly readings: Debrief['readings'] }) {
  return (
    <View testID="readings" className="gap-1">
      <Words look="heading" level={2}>
        Your readings
      </Words>
      {readings.length === 0 ? <Words look="soft">None was taken.</Words> : null}
      {readings.map(({ entry, what, judgement, words }) => (
        <View key={entry} className="border-t border-hairline py-2">
          <View className="flex-row flex-wrap justify-between gap-x-3">
            <Words look="figure">{what}</Words>
            <Words look="label" tone={JUDGED[judgement].tone}>
              {JUDGED[judgement].words}
            </Words>
          </View>
          <Words look="soft">{words}</Words>
        </View>
      ))}
    </View>
  );
}
