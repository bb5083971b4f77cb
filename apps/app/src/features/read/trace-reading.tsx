import { sayFigures } from '@yosoku/core/report/spoken';
import { useStation } from '@/logbook/station';
import { UndoButton } from '@/ui/undo-button';
import { TextLink } from '@/ui/text-link';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { formatReading, readingAt } from '@yosoku/core/crank/wheel';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { useStationWidth } from '@/shell/use-station-width';
import { LengthPad, useLengthEntry } from '@/forms/length-pad';
import { useShortcuts } from '@/ui/use-shortcuts';
import { useReadingEntry, wholeReading } from '@/forms/use-reading-entry';
import { Instruments, RecordTurn } from '@/steps/instruments/instruments';
import type { RecordedTurn } from '@yosoku/core/instruments/record-turn';
import { SlideRule } from '@/pictures/slide-rule';
import { useDraft } from '@/store/use-draft';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import type { Reading } from './reading';
import { TracePanel } from './trace-panel';
import type { ReadingChoice } from './use-reading-choice';
import { ZeroNotice } from './zero-notice';
import { MOST_LIFT } from '@yosoku/core/record/entries/limits';

const STEPS = [
  { value: '1', label: '1°' },
  { value: '2', label: '2°' },
  { value: '5', label: '5°' },
  { value: '10', label: '10°' },
] as const;
/** Before the valve opens, cycle angle. */
const BEGINS = { intake: -70, exhaust: -290 } as const;

interface TraceTypingProps {
  readonly choice: ReadingChoice;
  readonly reading: Reading;
  readonly bar: ReactNode;
  /** Point by point even where a whole trace is there already. */
  readonly typing: boolean;
  readonly onType: () => void;
}

/** Full trace: by hand, where the wheel goes on by a step and the lift is typed while the curve grows; or as it came from a file. */
export function TraceReading(props: TraceTypingProps) {
  const { report } = useStation();
  const { choice, typing } = props;
  const traces = report.trials.at(-1)?.traces.filter((each) => each.valve === choice.valve) ?? [];
  return traces.some((each) => !each.typed) && !typing ? <TraceDone {...props} /> : <TraceTyping {...props} />;
}

/** Keeps a turn that an instrument recorded as a trace of the lobe that is chosen. */
function useKeepTurn({ valve, sitsOn, cylinder }: TraceTypingProps['choice']) {
  const { report, write } = useStation();
  return (points: RecordedTurn['points'], box: string): void => {
    write('trace.recorded', {
      setting: report.zero.setting,
      trial: report.read.trial ?? write('trial.begun', { after: null }),
      cylinder: cylinder,
      valve,
      sitsOn,
      approach: 'forward',
      source: 'instrument',
      name: `A turn of ${box}`,
      counted: 'from-zero',
      points: points.map(([angle, mm]): [number, number] => [
        Math.round(angle * 1e3) / 1e3,
        Math.round(mm * 1e4) / 1e4,
      ]),
    });
  };
}

/** A trace point by point. */
function TraceTyping({ choice, reading, bar }: TraceTypingProps) {
  const { report } = useStation();
  const { build, zero, trials } = report;
  const { method, valve, sitsOn, next } = choice;
  const width = useStationWidth();
  const { draft, change } = useDraft<'step'>(`${build.id}/trace-step`);
  const step = Number(draft.step ?? '5');
  const trial = trials.at(-1);
  const round = trial?.rounds.findLast(
    (each) => each.method === method && each.valve === valve && each.sitsOn === sitsOn,
  );
  const last = round?.readings.at(-1)?.at ?? null;
  const due = last === null ? Math.round(BEGINS[valve] + (zero.result?.tdc ?? 0)) : last + step;
  const wheel = useReadingEntry(`${build.id}/trace-wheel`, 'trace', due);
  const lift = useLengthEntry(`${build.id}/trace-lift`, build.units);
  const at = wholeReading(wheel) ?? readingAt(wheel.ring, due);
  const traces = trial?.traces.filter((each) => each.valve === valve) ?? [];
  const goOn = `Go on to ${formatReading(at)}, the way it runs, and read the indicator.`;
  useSpoken(sayFigures(last === null ? next.sentence : goOn));
  const keepTurn = useKeepTurn(choice);
  return (
    <StationBody
      footer={
        <View>
          <SlideRule
            ring={wheel.ring}
            rotation={build.engine.rotation}
            position={wheel.position}
            turning={wheel.turning}
            width={width}
            onTurn={wheel.turnTo}
          />
          {zero.ring.ring === 'rim' ? null : (
            <Instruments
              valve={valve}
              wanted={{ wheel: true, lift: true, shown: null, approach: 'forward', place: null }}
              typed={wholeReading(wheel)}
              onTake={({ wheel: taken, lift: mm, box }) => {
                if (mm !== null && taken) reading.record(Math.max(0, mm), taken, { box });
                wheel.clear();
              }}
              onSynced={wheel.clear}
            />
          )}
          <LengthPad
            entry={lift}
            label={`Lift at ${formatReading(at)}`}
            recordLabel={`Record at ${formatReading(at)}`}
            onRecord={(mm) => {
              reading.record(mm, at);
              wheel.clear();
            }}
            onUndo={reading.undo}
            onNext={reading.decide}
            trouble={lift.mm !== null && lift.mm > MOST_LIFT ? 'No lobe lifts as much. Check the unit.' : null}
            nudge={wheel.nudge}
          />
        </View>
      }
    >
      {bar}
      <View className="gap-3 px-4 wide:px-0 pb-3 pt-3">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {last === null ? next.sentence : `${goOn} ${round?.readings.length} points so far.`}
        </Words>
        <ZeroNotice />
        <RecordTurn valve={valve} onRecorded={keepTurn} />
        {traces.map((trace) => (
          <TracePanel key={trace.id} trace={trace} />
        ))}
        <View className="flex-row flex-wrap items-center justify-between gap-x-4">
          <TextLink href={placeHref(build.id, 'trace')} className="py-3" testID="trace-import-link">
            From a file, or pasted
          </TextLink>
          <QuietButton testID="next" label="See the verdict" onPress={reading.decide} />
        </View>
        <More label={`Every ${step}°`} testID="trace-step">
          <Choice
            label="From point to point"
            options={STEPS}
            value={STEPS.find((each) => each.value === String(step))?.value}
            onChange={(value) => change({ step: value })}
          />
        </More>
      </View>
    </StationBody>
  );
}

/** A trace came as a whole: what it tells, and what comes next. */
function TraceDone({ choice, reading, bar, onType }: TraceTypingProps) {
  const { report } = useStation();
  const { build, trials } = report;
  const traces = trials.at(-1)?.traces ?? [];
  const mine = traces.filter((each) => each.valve === choice.valve);
  useShortcuts({ Enter: reading.decide, n: reading.decide, u: () => reading.undo?.() });
  return (
    <StationBody
      footer={
        <View>
          <View className="flex-row flex-wrap items-center justify-between gap-x-4 px-4 wide:px-0">
            <TextLink href={placeHref(build.id, 'trace')} className="px-2 py-3" testID="trace-import-link">
              Another trace
            </TextLink>
            <QuietButton testID="trace-type" label="Point by point" onPress={onType} />
            <UndoButton undo={reading.undo} />
          </View>
          <PrimaryButton testID="next" label="See the verdict" onPress={reading.decide} />
        </View>
      }
    >
      {bar}
      <View className="gap-3 px-4 wide:px-0 pb-3 pt-3">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {mine.length === 1 ? `One trace of the ${choice.valve}.` : `${mine.length} traces of the ${choice.valve}.`}
        </Words>
        <ZeroNotice />
        {mine.map((trace) => (
          <TracePanel key={trace.id} trace={trace} />
        ))}
      </View>
    </StationBody>
  );
}
