import { useStation } from '@/logbook/station';
import { sayFigures } from '@yosoku/core/report/spoken';
import { tdcLiftWords } from '@yosoku/core/report/reading-words';
import { wrap180 } from '@yosoku/core/units/angle';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { type WheelReading, readingAt, ringPosition } from '@yosoku/core/crank/wheel';
import { type LengthUnit, formatComputedLength } from '@yosoku/core/units/length';
import { StationBody } from '@/shell/station-body';
import { useStationWidth } from '@/shell/use-station-width';
import { LengthPad, useLengthEntry } from '@/forms/length-pad';
import { type ReadingEntry, useReadingEntry, wholeReading } from '@/forms/use-reading-entry';
import { Instruments } from '@/steps/instruments/instruments';
import type { Taken, Wanted } from '@/instruments/take-reading';
import type { Report } from '@yosoku/core/report/report';
import { SlideRule } from '@/pictures/slide-rule';
import { ReadSketch } from '@/pictures/read-sketch';
import { Choice } from '@/ui/choice';
import { useWide } from '@/ui/layout';
import { useDraft } from '@/store/use-draft';
import { useSpoken } from '@/ui/voice';
import { Words } from '@/ui/words';
import type { Reading } from './reading';
import type { ReadingChoice } from './use-reading-choice';
import { ZeroNotice } from './zero-notice';
import { READ_METHODS } from '@yosoku/core/measure/read-methods';
import { MOST_LIFT } from '@yosoku/core/record/entries/limits';

/** On a phone what to do has to stand above the keys and the line of an instrument: the sketch leaves it room, pixels. */
const NARROW_SKETCH = 150;

const TDC_BY = [
  { value: 'wheel', label: 'The wheel' },
  { value: 'piston', label: 'The piston, no wheel' },
] as const;

const ZEROED = [
  { value: 'base', label: 'On the base circle' },
  { value: 'tdc', label: 'At TDC' },
] as const;

const LIFT_ALONE: Wanted = { wheel: false, lift: true, shown: null, approach: 'any', place: null };
const WITH_WHEEL: Wanted = { ...LIFT_ALONE, wheel: true, approach: 'forward' };

interface ByIndicatorProps {
  readonly choice: ReadingChoice;
  readonly reading: Reading;
  readonly bar: ReactNode;
}

/** A reading of the indicator: lift at the peak, or at TDC. */
export function ByIndicator({ choice, reading, bar }: ByIndicatorProps) {
  const { report } = useStation();
  const { method, next } = choice;
  const width = useStationWidth();
  const wide = useWide();
  useSpoken(sayFigures(next.sentence));
  const { atTdc, byWheel, findBy } = useTdcBy(report, choice);
  const tdc = report.zero.result?.tdc ?? 0;
  const wheel = useReadingEntry(`${report.build.id}/read-at-tdc`, method, tdc);
  /** Where the wheel stands: as typed, or still at TDC; null where the piston says that it is at the top. */
  const underPointer = byWheel ? (wholeReading(wheel) ?? readingAt(wheel.ring, tdc)) : null;
  return (
    <StationBody footer={<IndicatorPad choice={choice} reading={reading} wheel={wheel} underPointer={underPointer} />}>
      {bar}
      <View className="items-center px-4 pt-3 wide:pt-5">
        <ReadSketch method={method} width={wide ? Math.min(width - 48, 420) : NARROW_SKETCH} next={0} />
      </View>
      <View className="gap-3 px-4 wide:px-0 pb-3 pt-3">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {next.sentence}
        </Words>
        {atTdc ? (
          <>
            <FoundBy off={underPointer && offWords(ringPosition(underPointer), tdc)} onChange={findBy} />
            <ZeroedWhere choice={choice} />
          </>
        ) : null}
        {byWheel ? <ZeroNotice /> : null}
      </View>
    </StationBody>
  );
}

interface IndicatorPadProps {
  readonly choice: ReadingChoice;
  readonly reading: Reading;
  readonly wheel: ReadingEntry;
  /** What the wheel shows; null where it is not read. */
  readonly underPointer: WheelReading | null;
}

/** The keys for what the indicator shows, below the wheel where that is read too; or an instrument shows both. */
function IndicatorPad({ choice, reading, wheel, underPointer }: IndicatorPadProps) {
  const { build, zero, card } = useStation().report;
  const { method, valve, next } = choice;
  const lift = useLengthEntry(`${build.id}/read-lift/${method}`, build.units);
  // A lobe stands below its peak at TDC; the peak of a valve is another figure than the card's of the lobe.
  const isBelowPeak = READ_METHODS[method].reads === 'tdc-lift' && choice.sitsOn !== 'valve';
  const most = isBelowPeak ? card.lobes[valve]?.peak : undefined;
  const trouble = lift.mm === null ? null : troubleOfLift(lift.mm, most, build.units);
  const record = (mm: number): void => {
    reading.record(mm, underPointer);
    wheel.clear();
  };
  const take = ({ wheel: at, lift: mm, box }: Taken): void => {
    if (mm === null) return;
    // Zeroed at the peak instead of on the base circle, it counts down.
    reading.record(Math.abs(mm), underPointer && at, { box });
    wheel.clear();
    lift.clear();
  };
  return (
    <View>
      {underPointer ? <WheelBelow wheel={wheel} /> : null}
      {zero.ring.ring === 'rim' ? null : (
        <Instruments
          valve={valve}
          wanted={underPointer ? WITH_WHEEL : LIFT_ALONE}
          typed={wholeReading(wheel)}
          onTake={take}
          onSynced={wheel.clear}
        />
      )}
      <LengthPad
        entry={lift}
        label="What the indicator shows"
        recordLabel={next.slot.record}
        onRecord={record}
        onUndo={reading.undo}
        onNext={reading.decide}
        trouble={trouble}
        {...(underPointer && { nudge: wheel.nudge })}
      />
    </View>
  );
}

/** Is a lift at TDC read, and is TDC found by the wheel? A proved one is taken unless the builder says otherwise. */
function useTdcBy({ build, zero }: Report, { method }: ReadingChoice) {
  const { draft, change } = useDraft<'by'>(`${build.id}/tdc-by`);
  const atTdc = READ_METHODS[method].reads === 'tdc-lift';
  const by = draft.by ?? (zero.state === 'proved' ? 'wheel' : 'piston');
  return { atTdc, byWheel: atTdc && by === 'wheel', findBy: (by: 'wheel' | 'piston') => change({ by }) };
}

/** Where the wheel stands, to be turned to what is under the pointer. */
function WheelBelow({ wheel }: { readonly wheel: ReadingEntry }) {
  const { rotation } = useStation().report.build.engine;
  const width = useStationWidth();
  const { ring, position, turning, turnTo } = wheel;
  return (
    <SlideRule ring={ring} rotation={rotation} position={position} turning={turning} width={width} onTurn={turnTo} />
  );
}

interface FoundByProps {
  /** How far off TDC the wheel stands, in words; null where there is no wheel. */
  readonly off: string | null;
  readonly onChange: (by: 'wheel' | 'piston') => void;
}

/** What says that the piston is at TDC. */
function FoundBy({ off, onChange }: FoundByProps) {
  const [by, hint] =
    off === null
      ? (['piston', 'Where the piston just stops: coarser, and the answer says by how much.'] as const)
      : (['wheel', `The rule below says ${off}; turn it to what stands under the pointer.`] as const);
  return <Choice testID="tdc-by" label="TDC is found by" options={TDC_BY} value={by} onChange={onChange} hint={hint} />;
}

/** Where the indicator was zeroed, and what the card's lifts mean for the target. */
function ZeroedWhere({ choice }: { readonly choice: ReadingChoice }) {
  const wanted = tdcLiftWords(useStation().report, choice.valve);
  return (
    <>
      <Choice
        testID="zeroed"
        label="The indicator is zeroed"
        options={ZEROED}
        value={choice.zeroedAtTdc ? 'tdc' : 'base'}
        onChange={(zeroed) => choice.choose({ zeroed })}
      />
      {wanted ? <Words look="body">{wanted}</Words> : null}
    </>
  );
}

/** What is wrong with a lift, mm. */
function troubleOfLift(lift: number, most: number | undefined, units: LengthUnit): string | null {
  if (lift > MOST_LIFT) return 'No lobe lifts as much. Check the unit.';
  if (most === undefined || lift < most) return null;
  return `That is not less than the whole lift, ${formatComputedLength(most, units)} on the card.`;
}

function offWords(at: number, tdc: number): string {
  const off = wrap180(at - tdc);
  if (Math.abs(off) < 0.01) return 'true TDC';
  return `${Math.abs(off).toFixed(2)}° ${off < 0 ? 'before' : 'after'} TDC`;
}
