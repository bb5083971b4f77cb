import { readingSentence } from '@yosoku/core/report/reading-sentence';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { type WheelReading, formatReading } from '@yosoku/core/crank/wheel';
import { type TdcSide, ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import type { Report } from '@yosoku/core/report/report';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import { PairedReadings } from '@/findings/paired-readings';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import type { StationProps } from '@/shell/station-screen';
import { newId } from '@/logbook/use-logbook';
import { useStationWidth, useWheelSize } from '@/shell/use-station-width';
import { figureOf } from '@/forms/figure';
import { ReadingPad } from '@/forms/reading-pad';
import { useReadingEntry, wholeReading } from '@/forms/use-reading-entry';
import { Instruments } from '@/steps/instruments/instruments';
import { DegreeWheel } from '@/pictures/degree-wheel';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { ChooseMethod } from './choose-method';
import { FigureField, useFigure } from '@/forms/figure-field';
import { Proved, ZeroStanding } from './proved';
import { OtherWays, SetTheWheel } from './set-the-wheel';

type Pass = Report['zero']['passes'][number];

const OTHER_SIDE = { before: 'after', after: 'before' } as const;

/** The pass that the picture shows: the one being made, else the newest of the wheel's present position, else the one before. */
function passInSight(zero: Report['zero']): Pass | undefined {
  const here = zero.passes.filter((pass) => pass.setting === zero.setting);
  return here.at(-1) ?? (zero.state === 'set' ? undefined : zero.passes.at(-1));
}

/** Zero: true TDC, by the method that fits the engine. */
export function ZeroStation(props: StationProps) {
  const [choosing, setChoosing] = useState(false);
  return choosing || props.report.zero.step.does === 'begin' ? (
    <ChooseMethod {...props} onBegun={() => setChoosing(false)} />
  ) : (
    <Measuring {...props} onOtherMethod={() => setChoosing(true)} />
  );
}

function Measuring({ report, write, undo, onOtherMethod }: StationProps & { readonly onOtherMethod: () => void }) {
  const { zero, build } = report;
  const { ring } = zero;
  const table = ZERO_METHODS[zero.method ?? 'positive-stop'];
  const width = useStationWidth();
  const size = useWheelSize();
  const router = useRouter();
  const figure = useFigure(report);
  const [otherSide, setOtherSide] = useState(false);
  const [another, setAnother] = useState(false);

  const step =
    another && zero.step.does !== 'read'
      ? ({ does: 'read', side: 'before', pass: null, setting: zero.setting, figure: null } as const)
      : zero.step;
  const fresh = step.does === 'read' && step.pass === null;
  const side: TdcSide | null =
    step.does !== 'read' ? null : fresh && otherSide && table.readings === 'pair' ? OTHER_SIDE[step.side] : step.side;
  const pass = fresh && zero.passes.length > 0 ? undefined : passInSight(zero);
  const entry = useReadingEntry(`${build.id}/zero`, ring, pass?.readings.at(-1)?.at ?? 0);

  const record = (wheel: WheelReading, box?: string): void => {
    if (step.does !== 'read' || side === null || zero.id === null) return;
    if (figure.needed && figure.mm === null) return;
    write('zero.reading', {
      zero: zero.id,
      setting: step.setting,
      pass: step.pass ?? newId(),
      side,
      wheel,
      ...(figure.needed && figure.mm !== null ? { indicator: figure.mm } : {}),
      ...(box ? { from: { box } } : {}),
    });
    setOtherSide(false);
    setAnother(false);
  };
  const next = (): void =>
    router.replace(placeHref(build.id, report.target.intakeCentreline === null ? 'card' : 'read'));
  const troubled = zero.passes.filter((each) => each.setting === zero.setting).find((each) => each.problem);
  const turned = otherSide || (another && step.does === 'read');
  // What is on the screen alone, the side and the figure, the Report does not know.
  const sentence =
    side && (turned || (figure.needed && !troubled)) ? readingSentence(zero, side, figure.words) : zero.sentence;
  const shown = figureOf(entry, step.does === 'read' ? null : (pass?.readings.at(-1)?.shows ?? null));
  const tdc =
    zero.state === 'found' || zero.state === 'failed'
      ? (zero.result?.tdc ?? null)
      : zero.setting === null
        ? null
        : (zero.result?.tdc ?? 0);
  const shows = (of: TdcSide) => pass?.readings.find((reading) => reading.side === of)?.shows;
  const first = zero.passes.length === 0;

  return (
    <StationBody
      footer={
        step.does === 'read' && side ? (
          <View>
            {ring.ring === 'rim' ? null : (
              <Instruments
                report={report}
                valve={null}
                wanted={{
                  wheel: true,
                  lift: false,
                  shown: null,
                  approach: table.height === 'stop' ? (side === 'before' ? 'forward' : 'backward') : 'any',
                }}
                typed={wholeReading(entry)}
                onTake={({ wheel, box }) => wheel && record(wheel, box)}
                onTied={entry.clear}
              />
            )}
            <ReadingPad
              entry={entry}
              ring={ring}
              rotation={build.engine.rotation}
              recordLabel={table.record[side]}
              onRecord={record}
              onUndo={undo}
              onNext={next}
              width={width}
              blocked={figure.needed && figure.mm === null ? 'Type the indicator’s figure first.' : null}
            />
          </View>
        ) : step.does === 'set' && zero.id ? (
          <SetTheWheel zero={zero} write={write} undo={undo} after={step.after} onRepeat={() => setAnother(true)} />
        ) : (
          <Proved
            report={report}
            write={write}
            onNext={next}
            nextLabel={report.target.intakeCentreline === null ? 'On to the card' : 'On to reading the cam'}
            onProveAgain={() => setAnother(true)}
            onOtherMethod={onOtherMethod}
            undo={undo}
          />
        )
      }
    >
      <View className="items-center pt-2">
        <DegreeWheel
          ring={ring}
          rotation={build.engine.rotation}
          position={entry.position}
          turning={entry.turning}
          figureAt={entry.figureAt}
          size={size}
          marks={pass?.readings.map(({ at }) => ({ at, kind: 'contact' as const })) ?? []}
          blocked={
            pass?.result && pass.result.arc > 0
              ? { from: pass.result.tdc + pass.result.offsetShift - pass.result.half, sweep: pass.result.arc }
              : null
          }
          tdc={tdc}
          turn={side === null ? null : table.height === 'stop' && side === 'after' ? 'backward' : 'forward'}
          figure={shown.figure}
          word={shown.word}
          description={describeWheel(report, entry.state.state === 'whole' ? formatReading(entry.state.reading) : null)}
          {...(step.does === 'read' ? { onTurn: entry.turnTo } : {})}
        />
        <PairedReadings
          left={{ shows: shows('before'), label: table.label.before }}
          right={table.readings === 'pair' ? { shows: shows('after'), label: table.label.after } : null}
        />
      </View>
      <View className="gap-2 px-4 wide:px-0 pb-3 pt-2">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {sentence}
        </Words>
        {step.does === 'read' ? <FigureField figure={figure} report={report} /> : null}
        {fresh ? (
          <View className="flex-row flex-wrap gap-x-4">
            {table.readings === 'pair' && ring.ring !== 'rim' ? (
              <QuietButton
                label={otherSide ? `First the one ${table.label.before}` : `First the one ${table.label.after}`}
                onPress={() => setOtherSide(!otherSide)}
              />
            ) : null}
            {first ? (
              <QuietButton
                label="Another method"
                testID="another-method"
                onPress={() =>
                  zero.id && write('entry.voided', { voids: zero.id, reason: 'Another method was taken.' })
                }
              />
            ) : null}
          </View>
        ) : null}
        {step.does === 'set' ? <OtherWays zero={zero} /> : null}
        {troubled?.problem ? <Trouble pass={troubled} report={report} write={write} /> : null}
        {zero.odd ? <Notice kind="warning" message={zero.odd} testID="odd-arc" /> : null}
        {zero.remark && step.does !== 'read' ? <Words look="soft">{zero.remark}</Words> : null}
        {step.does === 'set' && zero.uncertainty ? (
          <Words look="soft">{`As it stands, ${zero.uncertainty.words}.`}</Words>
        ) : null}
        {step.does === 'nothing' ? <ZeroStanding report={report} write={write} /> : null}
      </View>
    </StationBody>
  );
}

/** A pair that cannot be right; where exchanging its readings would cure it, that is offered. */
function Trouble({ pass, report, write }: { readonly pass: Pass } & Pick<StationProps, 'report' | 'write'>) {
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

function describeWheel({ build, zero }: Report, reading: string | null): string {
  const under = reading ? `Under the pointer: ${reading}.` : 'Nothing typed yet.';
  const found = zero.result ? ` ${wheelDegrees(zero.result.arc)} between the two readings.` : '';
  return `Degree wheel, engine running ${build.engine.rotation}. ${under}${found}`;
}
