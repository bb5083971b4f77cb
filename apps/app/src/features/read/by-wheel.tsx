import { useStation } from '@/logbook/station';
import { ReadingWheel } from '@/forms/reading-wheel';
import { type ReactNode, useState } from 'react';
import { View } from 'react-native';
import { EVENT_NAMES, closesAt, noseAt, opensAt } from '@yosoku/core/cam/card';
import type { WheelReading } from '@yosoku/core/crank/wheel';
import { spokenTurn, turnInShort } from '@yosoku/core/report/spoken';
import type { Report } from '@yosoku/core/report/report';
import { READ_METHODS } from '@yosoku/core/measure/read-methods';
import { PairedReadings } from '@/findings/paired-readings';
import { StationBody } from '@/shell/station-body';
import { useStationWidth, useWheelSize } from '@/shell/use-station-width';
import { ReadingPad } from '@/forms/reading-pad';
import { type ReadingEntry, useReadingEntry, wholeReading } from '@/forms/use-reading-entry';
import { figureOf } from '@/forms/figure';
import { Afar } from '@/shell/afar';
import { useSpoken } from '@/ui/voice';
import { Instruments } from '@/steps/instruments/instruments';
import type { Wanted } from '@/instruments/take-reading';
import type { WheelMark } from '@/pictures/degree-wheel';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { troubleIn } from '@/forms/typed-length';
import { HeightField } from './height-field';
import type { Reading } from './reading';
import type { ReadingChoice } from './use-reading-choice';
import { ZeroNotice } from './zero-notice';

type Round = Report['trials'][number]['rounds'][number];

interface ByWheelProps {
  readonly choice: ReadingChoice;
  readonly reading: Reading;
  readonly bar: ReactNode;
  /** The round that is being read. */
  readonly round: Round | undefined;
}

const BAR = 46;
const NO_FIGURE = 'Type the figure that the indicator is brought to first.';
const COMING = { forward: 'coming forward', backward: 'coming back' } as const;

/** A reading where the indicator is brought to a figure and the wheel is read. */
export function ByWheel({ choice, reading, bar, round }: ByWheelProps) {
  const { report } = useStation();
  const { build, zero } = report;
  const { method, next, height } = choice;
  const width = useStationWidth();
  const size = useWheelSize(BAR);
  const [asked, setAsked] = useState(false);
  const [back, setBack] = useState(false);
  const entry = useReadingEntry(`${build.id}/read`, method, round?.readings.at(-1)?.at ?? 0);
  const approach = back ? 'backward' : next.slot.approach;
  const record = (wheel: WheelReading, box?: string): void => {
    if (height.mm === null) return;
    reading.record(height.mm, wheel, { approach, box });
    setAsked(false);
    setBack(false);
  };
  const [first, second] = READ_METHODS[method].slots;
  const shows = (slot: number): string | undefined => round?.readings.find((each) => each.slot === slot)?.shows;
  const turn = turnOf(choice, approach);
  useSpoken(spokenTurn(turn, build.units));
  const wheel = (of: number) => <Wheel size={of} entry={entry} choice={choice} round={round} approach={approach} />;
  return (
    <StationBody
      afar={
        <Afar
          sentence={turnInShort(turn, build.units)}
          {...figureOf(entry, round?.readings.at(-1)?.shows ?? null)}
          picture={wheel}
        />
      }
      footer={
        <View>
          {zero.ring.ring === 'rim' ? null : (
            <Instruments
              valve={choice.valve}
              wanted={wantedOf(choice, approach)}
              typed={wholeReading(entry)}
              onTake={({ wheel, box }) => wheel && record(wheel, box)}
              onSynced={entry.clear}
            />
          )}
          <ReadingPad
            entry={entry}
            rotation={build.engine.rotation}
            {...asRead(next, back)}
            onRecord={record}
            onUndo={reading.undo}
            onNext={reading.decide}
            width={width}
            blocked={height.mm === null ? (troubleIn(height.typed) ?? NO_FIGURE) : null}
          />
        </View>
      }
    >
      {bar}
      <View className="items-center pt-2">
        {wheel(size)}
        <PairedReadings
          left={{ shows: shows(0), label: first?.label ?? '' }}
          right={second ? { shows: shows(1), label: second.label } : null}
        />
      </View>
      <View className="gap-2 px-4 wide:px-0 pb-3 pt-2">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {next.sentence}
        </Words>
        <RoundTrouble round={round} />
        {height.asked ? <HeightField height={height} asked={asked} /> : null}
        <ZeroNotice />
        {next.slot.approach === 'backward' ? null : <WhichWay back={back} onChange={setBack} />}
      </View>
    </StationBody>
  );
}

/** What the indicator shows when it is at its figure; null where it is not looked at. */
function shownAt({ height, isFelt, next }: ReadingChoice): number | null {
  if (height.mm === null || isFelt) return null;
  return next.slot.shows === 'below-peak' ? -height.mm : height.mm;
}

/** What is taken from an instrument. */
const wantedOf = (choice: ReadingChoice, approach: 'forward' | 'backward'): Wanted => ({
  wheel: true,
  lift: false,
  shown: shownAt(choice),
  approach,
  place: `${choice.valve} ${choice.next.slot.label}`,
});

/** What the keys record a reading as: turning which way. */
const asRead = ({ slot }: ReadingChoice['next'], back: boolean) =>
  back
    ? { recordLabel: 'Record, read turning back', readAs: `${slot.label}, turning back` }
    : { recordLabel: slot.record, readAs: `${slot.label}, ${COMING[slot.approach]}` };

/** What does not fit in the round, or was read the wrong way. */
function RoundTrouble({ round }: { readonly round: Round | undefined }) {
  return (
    <>
      {round?.problem ? (
        <Notice kind="warning" message={round.problem.message} remedy={round.problem.remedy} testID="trouble" />
      ) : null}
      {round?.readings.some((each) => each.aside !== null) ? (
        <Notice
          kind="warning"
          testID="aside"
          message="A reading was taken turning backwards."
          remedy="It is kept, for the slack in the timing drive only. Back up well past, come again the way it runs, and read once more."
        />
      ) : null}
    </>
  );
}

const turnOf = ({ isFelt, height, next }: ReadingChoice, approach: 'forward' | 'backward') =>
  ({ height: isFelt ? null : height.mm, label: next.slot.label, approach, reads: 'wheel' }) as const;

interface WheelProps extends Pick<ByWheelProps, 'choice' | 'round'> {
  readonly size: number;
  readonly entry: ReadingEntry;
  readonly approach: 'forward' | 'backward';
}

/** The wheel with the card's places and what was read, the reading that is typed under its pointer. */
function Wheel({ size, entry, choice, round, approach }: WheelProps) {
  const { report } = useStation();
  const { zero } = report;
  const offset = zero.result?.tdc ?? 0;
  return (
    <ReadingWheel
      entry={entry}
      size={size}
      marks={marksOf(report, choice, round, offset)}
      tdc={zero.state === 'proved' ? offset : null}
      turn={approach}
      saying={sayingOf(report, choice)}
    />
  );
}

/** That a reading was come to turning backwards; on an engine that must not be turned back, how to come again. */
function WhichWay({ back, onChange }: { readonly back: boolean; readonly onChange: (back: boolean) => void }) {
  const { prepare } = useStation().report;
  if (prepare.asItStands?.oneWay)
    return (
      <Words look="soft" testID="one-way">
        This engine is not turned back. Where it says to back up, go on instead: two full turns, and come again.
      </Words>
    );
  return (
    <View className="items-start">
      <QuietButton
        testID="came-back"
        label={back ? 'It will be marked as read turning back. Undo that' : 'I came to it turning backwards'}
        onPress={() => onChange(!back)}
      />
    </View>
  );
}

/** The card's place for what is being read, hollow, and what was read, filled. */
function marksOf(
  report: Report,
  { method, valve, height, cylinder }: ReadingChoice,
  round: Round | undefined,
  zero: number,
): WheelMark[] {
  const { card, target, crank } = report;
  const fires = crank.cylinders.find((each) => each.cylinder === cylinder)?.after ?? 0;
  const ahead = target.ahead ?? 0;
  const lobe = card.printed?.[valve];
  const hollow = (at: number): WheelMark => ({ at: at + zero + fires, kind: 'card', valve });
  const wanted: WheelMark[] = [];
  const { gives } = READ_METHODS[method];
  if (gives === 'centreline') {
    const centre = valve === 'intake' ? target.intakeCentreline : target.exhaustCentreline;
    if (centre !== null) wanted.push(hollow(noseAt(valve, centre)));
  } else {
    const line = lobe?.timing?.find(
      (each) => each.height !== null && height.mm !== null && Math.abs(each.height - height.mm) < 1e-6,
    );
    if (line?.opens !== undefined) wanted.push(hollow(opensAt(valve, line.opens + ahead)));
    if (line?.closes !== undefined && gives === 'events') wanted.push(hollow(closesAt(valve, line.closes - ahead)));
  }
  const measured = (round?.readings ?? []).flatMap(({ at }): WheelMark[] =>
    at === null ? [] : [{ at, kind: 'measured', valve }],
  );
  return [...wanted, ...measured];
}

/** What the picture of the wheel says to whom it is read. */
const sayingOf = ({ build, target }: Report, { valve }: ReadingChoice) => ({
  what: `Degree wheel, engine running ${build.engine.rotation}, reading the ${valve}`,
  besides:
    target.intakeCentreline === null || valve !== 'intake'
      ? ''
      : ` The target ${EVENT_NAMES.intake.centreline}, ${target.intakeCentreline}° after TDC, is what the cam is judged against; the card’s places are marked hollow.`,
});
