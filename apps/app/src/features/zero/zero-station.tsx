import { ReadingWheel } from '@/forms/reading-wheel';
import { OTHER_SIDE, type Pass, type Search, useSearch } from './use-search';
import { useState } from 'react';
import { View } from 'react-native';
import type { TdcSide } from '@yosoku/core/tdc/zero-methods';
import type { Report } from '@yosoku/core/report/report';
import { sayFigures } from '@yosoku/core/report/spoken';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import { PairedReadings } from '@/findings/paired-readings';
import { StationBody } from '@/shell/station-body';
import { useStation } from '@/logbook/station';
import { newId } from '@/logbook/use-logbook';
import { useStationWidth, useWheelSize } from '@/shell/use-station-width';
import { ReadingPad } from '@/forms/reading-pad';
import { wholeReading } from '@/forms/use-reading-entry';
import { figureOf } from '@/forms/figure';
import { Afar } from '@/shell/afar';
import { useSpoken } from '@/ui/voice';
import { Instruments } from '@/steps/instruments/instruments';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { ChooseMethod } from './choose-method';
import { FigureField } from '@/forms/figure-field';
import { PushedField } from './pushed-valve';
import { Proved, ZeroStanding } from './proved';
import { OtherWays, SetTheWheel } from './set-the-wheel';

/** Zero: true TDC, by the method that fits the engine. */
export function ZeroStation() {
  const { report } = useStation();
  const [choosing, setChoosing] = useState(false);
  return choosing || report.zero.step.does === 'begin' ? (
    <ChooseMethod onBegun={() => setChoosing(false)} />
  ) : (
    <Measuring onOtherMethod={() => setChoosing(true)} />
  );
}

/** What is to be known of the zero beside the next step. */
function HowItStands() {
  const { odd, remark, step, uncertainty } = useStation().report.zero;
  return (
    <>
      {odd ? <Notice kind="warning" message={odd} testID="odd-arc" /> : null}
      {remark && step.does !== 'read' ? <Words look="soft">{remark}</Words> : null}
      {step.does === 'set' && uncertainty ? <Words look="soft">{`As it stands, ${uncertainty.words}.`}</Words> : null}
    </>
  );
}

function Measuring({ onOtherMethod }: { readonly onOtherMethod: () => void }) {
  const { report } = useStation();
  const { zero } = report;
  const search = useSearch();
  const { step, troubled } = search;
  useSpoken(sayFigures(search.sentence));
  return (
    <StationBody
      afar={
        <Afar
          sentence={search.sentence}
          {...figureOf(search.entry, search.pass?.readings.at(-1)?.shows ?? null)}
          picture={(size) => <TheWheel search={search} size={size} />}
        />
      }
      footer={<WhatIsPressed search={search} onOtherMethod={onOtherMethod} />}
    >
      <Wheel search={search} />
      <View className="gap-2 px-4 wide:px-0 pb-3 pt-2">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {search.sentence}
        </Words>
        {step.does === 'read' ? <Figures search={search} /> : null}
        {search.fresh ? <OtherChoices search={search} /> : null}
        {step.does === 'set' ? <OtherWays zero={zero} /> : null}
        {troubled?.problem ? <Trouble pass={troubled} /> : null}
        <HowItStands />
        {step.does === 'nothing' ? <ZeroStanding /> : null}
      </View>
    </StationBody>
  );
}

/** What the indicator shows, where the method goes by one. */
const Figures = ({ search }: { readonly search: Search }) => (
  <>
    <PushedField pushed={search.pushed} />
    <FigureField figure={search.figure} />
  </>
);

interface PressedProps {
  readonly search: Search;
  readonly onOtherMethod: () => void;
}

/** What stays under the thumb: the pad, the wheel to be set, or where one goes from a proved zero. */
function WhatIsPressed({ search, onOtherMethod }: PressedProps) {
  const { report } = useStation();
  const { zero, target } = report;
  const { step, side } = search;
  if (step.does === 'read' && side) return <ReadTheWheel search={search} side={side} />;
  if (step.does === 'set' && zero.id) return <SetTheWheel zero={zero} after={step.after} onRepeat={search.repeat} />;
  return (
    <Proved
      onNext={search.next}
      nextLabel={target.intakeCentreline === null ? 'On to the card' : 'On to reading the cam'}
      onProveAgain={search.repeat}
      onOtherMethod={onOtherMethod}
    />
  );
}

type ReadProps = Pick<PressedProps, 'search'> & { readonly side: TdcSide };

/** A stop is felt on the side that it is met from; a drop is read either way. */
const approachTo = (side: TdcSide, height: 'stop' | 'indicator'): 'forward' | 'backward' | 'any' => {
  if (height !== 'stop') return 'any';
  return side === 'before' ? 'forward' : 'backward';
};

function ReadTheWheel({ search, side }: ReadProps) {
  const { report, undo } = useStation();
  const { ring } = report.zero;
  const { table, entry, lacksFigure, record } = search;
  const width = useStationWidth();
  return (
    <View>
      {ring.ring === 'rim' ? null : (
        <Instruments
          valve={null}
          wanted={{ wheel: true, lift: false, shown: null, approach: approachTo(side, table.height), place: side }}
          typed={wholeReading(entry)}
          onTake={({ wheel, box }) => wheel && record(wheel, box)}
          onSynced={entry.clear}
        />
      )}
      <ReadingPad
        entry={entry}
        rotation={report.build.engine.rotation}
        recordLabel={table.record[side]}
        onRecord={record}
        onUndo={undo}
        onNext={search.next}
        width={width}
        blocked={lacksFigure ? 'Type the indicator’s figure first.' : null}
      />
    </View>
  );
}

/** The arc that the piston could not cross. */
const blockedBy = (pass: Pass | undefined) =>
  pass?.result && pass.result.arc > 0
    ? { from: pass.result.tdc + pass.result.offsetShift - pass.result.half, sweep: pass.result.arc }
    : null;

/** Height of a field under the sentence, pixels. */
const FIELD = 84;

/** The wheel under its pointer, with what was met on it, and both readings of the pass. */
function Wheel({ search }: Pick<PressedProps, 'search'>) {
  const { table, step, pass, figure, pushed } = search;
  const fields = step.does === 'read' ? Number(figure.needed && !figure.fixed) + Number(pushed.needed) : 0;
  const size = useWheelSize(fields * FIELD);
  const shows = (of: TdcSide) => pass?.readings.find((reading) => reading.side === of)?.shows;
  return (
    <View className="items-center pt-2">
      <TheWheel search={search} size={size} />
      <PairedReadings
        left={{ shows: shows('before'), label: table.label.before }}
        right={table.readings === 'pair' ? { shows: shows('after'), label: table.label.after } : null}
      />
    </View>
  );
}

function TheWheel({ search, size }: Pick<PressedProps, 'search'> & { readonly size: number }) {
  const { report } = useStation();
  const { table, step, side, pass, entry } = search;
  const turn = side && approachTo(side, table.height) === 'backward' ? 'backward' : 'forward';
  return (
    <ReadingWheel
      entry={entry}
      recorded={step.does === 'read' ? null : (pass?.readings.at(-1)?.shows ?? null)}
      turns={step.does === 'read'}
      size={size}
      marks={pass?.readings.map(({ at }) => ({ at, kind: 'contact' as const })) ?? []}
      blocked={blockedBy(pass)}
      tdc={search.tdc}
      turn={side && turn}
      saying={sayingOf(report)}
    />
  );
}

/** Before the first reading of a pass: the other side first, or another method altogether. */
function OtherChoices({ search }: Pick<PressedProps, 'search'>) {
  const { report, write } = useStation();
  const { zero } = report;
  const { table, otherSide } = search;
  return (
    <View className="flex-row flex-wrap gap-x-4">
      {table.readings === 'pair' && zero.ring.ring !== 'rim' ? (
        <QuietButton
          label={`First the one ${table.label[otherSide.chosen ? 'before' : 'after']}`}
          onPress={otherSide.change}
        />
      ) : null}
      {zero.passes.length === 0 ? (
        <QuietButton
          label="Another method"
          testID="another-method"
          onPress={() => zero.id && write('entry.voided', { voids: zero.id, reason: 'Another method was taken.' })}
        />
      ) : null}
    </View>
  );
}

/** A pair that cannot be right; where exchanging its readings would cure it, that is offered. */
function Trouble({ pass }: { readonly pass: Pass }) {
  const { report, write } = useStation();
  const { zero } = report;
  const exchange = (): void => {
    if (zero.id === null) return;
    const again = newId();
    for (const { entry, side, wheel, indicator } of pass.readings) {
      write('entry.voided', { voids: entry, reason: 'Exchanged with the other side.' });
      write('zero.reading', {
        zero: zero.id,
        setting: pass.setting,
        pass: again,
        side: OTHER_SIDE[side],
        wheel,
        ...(indicator === null ? {} : { indicator }),
      });
    }
  };
  if (!pass.problem) return null;
  return (
    <Notice kind="warning" message={pass.problem.message} remedy={pass.problem.remedy} testID="trouble">
      {pass.exchanged ? (
        <View className="items-start">
          <QuietButton testID="exchange" label="Exchange the two" onPress={exchange} />
        </View>
      ) : null}
    </Notice>
  );
}

/** What the picture of the wheel says to whom it is read. */
const sayingOf = ({ build, zero }: Report) => ({
  what: `Degree wheel, engine running ${build.engine.rotation}`,
  besides: zero.result ? ` ${wheelDegrees(zero.result.arc)} between the two readings.` : '',
});
