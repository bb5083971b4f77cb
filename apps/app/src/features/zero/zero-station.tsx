import { useState } from 'react';
import { View } from 'react-native';
import type { WheelReading } from '@yosoku/core/crank/wheel';
import { formatReading } from '@yosoku/core/crank/wheel';
import type { Report } from '@yosoku/core/logbook/report';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import { useRouter } from 'expo-router';
import { placeHref } from '@/features/builds/station-line';
import type { StationProps } from '@/features/builds/station-screen';
import { newId } from '@/features/builds/use-logbook';
import { PairedReadings } from '@/features/builds/paired-readings';
import { StationBody } from '@/features/builds/station-body';
import { useStationWidth, useWheelSize } from '@/features/builds/use-station-width';
import { ReadingPad } from '@/features/entry/reading-pad';
import { figureOf } from '@/features/entry/figure';
import { useReadingEntry } from '@/features/entry/use-reading-entry';
import { useShortcuts } from '@/features/entry/use-shortcuts';
import { DegreeWheel } from '@/pictures/degree-wheel';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { OtherWays, SetTheWheel } from './set-the-wheel';

type Pass = Report['zero']['passes'][number];
type Contact = Pass['contacts'][number];

const OTHER_WAY = { forward: 'backward', backward: 'forward' } as const;
const TURN_WORD = { forward: 'turning forward', backward: 'turning back' } as const;

/** The pass that the picture shows: the one being made, else the newest of the wheel's present position, else the one before. */
function passInSight(zero: Report['zero']): Pass | undefined {
  const here = zero.passes.filter((pass) => pass.setting === zero.setting);
  return here.at(-1) ?? (zero.state === 'set' ? undefined : zero.passes.at(-1));
}

/** Zero: true TDC with a positive stop. */
export function ZeroStation({ report, write, undo }: StationProps) {
  const { zero, build } = report;
  const width = useStationWidth();
  const router = useRouter();
  const [otherWay, setOtherWay] = useState(false);
  const [proveAgain, setProveAgain] = useState(false);

  const step =
    zero.step.does === 'nothing' && proveAgain
      ? ({ does: 'contact', turning: 'forward', pass: null, setting: zero.setting } as const)
      : zero.step;
  const fresh = step.does === 'contact' && step.pass === null;
  const turning = step.does !== 'contact' ? null : fresh && otherWay ? OTHER_WAY[step.turning] : step.turning;
  const pass = step.does === 'contact' && fresh && zero.state !== 'none' ? undefined : passInSight(zero);
  const lastAt = pass?.contacts.at(-1)?.at ?? 0;
  const entry = useReadingEntry(`${build.id}/zero`, build.wheel, lastAt);

  const record = (wheel: WheelReading): void => {
    if (step.does !== 'contact' || turning === null) return;
    const zeroId = zero.id ?? write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
    const passId = step.pass ?? newId();
    write('zero.contact', { zero: zeroId, setting: step.setting, pass: passId, turning, wheel });
    setOtherWay(false);
    setProveAgain(false);
  };
  const next = (): void =>
    router.replace(placeHref(build.id, report.target.intakeCentreline === null ? 'card' : 'read'));
  const trouble = zero.passes.filter((each) => each.setting === zero.setting).find((each) => each.problem)?.problem;
  const sentence =
    step.does === 'contact' && (otherWay || (proveAgain && zero.state === 'proved'))
      ? `Turn it ${turning === 'backward' ? 'backwards' : 'the way it runs'}, gently, until the piston meets the stop. Read the wheel.`
      : zero.sentence;
  const size = useWheelSize();
  const shown = figureOf(entry, step.does === 'contact' ? null : (pass?.contacts.at(-1)?.shows ?? null));
  const tdc =
    zero.state === 'found' || zero.state === 'failed'
      ? (zero.result?.tdc ?? null)
      : zero.setting === null
        ? null
        : (zero.result?.tdc ?? 0);

  const shows = (way: Contact['turning']) => pass?.contacts.find((contact) => contact.turning === way)?.shows;

  return (
    <StationBody
      footer={
        step.does === 'contact' && turning ? (
          <ReadingPad
            entry={entry}
            ring={build.wheel}
            rotation={build.engine.rotation}
            recordLabel={`Record contact ${TURN_WORD[turning]}`}
            onRecord={record}
            onUndo={undo}
            onNext={next}
            width={width}
          />
        ) : step.does === 'set' && zero.id ? (
          <SetTheWheel zero={zero} write={write} undo={undo} after={step.after} />
        ) : (
          <Proved
            onNext={next}
            nextLabel={report.target.intakeCentreline === null ? 'On to the card' : 'On to reading the cam'}
            onProveAgain={() => setProveAgain(true)}
            onFindAgain={() => write('zero.begun', { after: zero.id, method: 'positive-stop', cylinder: 1 })}
            undo={undo}
          />
        )
      }
    >
      <View className="items-center pt-2">
        <DegreeWheel
          ring={build.wheel}
          rotation={build.engine.rotation}
          position={entry.position}
          size={size}
          marks={pass?.contacts.map(({ at }) => ({ at, kind: 'contact' as const })) ?? []}
          blocked={pass?.result ? { from: pass.result.tdc - pass.result.half, sweep: pass.result.blockedArc } : null}
          tdc={tdc}
          turn={turning}
          figure={shown.figure}
          word={shown.word}
          description={describeWheel(report, entry.state.state === 'whole' ? formatReading(entry.state.reading) : null)}
          {...(step.does === 'contact' ? { onTurn: entry.turnTo } : {})}
        />
        <PairedReadings
          left={{ shows: shows('forward'), label: 'turning forward' }}
          right={{ shows: shows('backward'), label: 'turning back' }}
        />
      </View>
      <View className="gap-2 px-4 wide:px-0 pb-3 pt-2">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {sentence}
        </Words>
        {fresh ? (
          <View className="items-start">
            <QuietButton
              label={otherWay ? 'I turn it forward first' : 'I turn it back first'}
              onPress={() => setOtherWay(!otherWay)}
            />
          </View>
        ) : null}
        {step.does === 'set' ? <OtherWays zero={zero} /> : null}
        {trouble ? <Notice kind="warning" message={trouble.message} remedy={trouble.remedy} testID="trouble" /> : null}
        {zero.remark && step.does !== 'contact' ? <Words look="soft">{zero.remark}</Words> : null}
        {zero.state === 'none' ? <BeforeYouTurn /> : null}
      </View>
    </StationBody>
  );
}

/** Shown before the first contact. The engine maker's manual has the last word. */
function BeforeYouTurn() {
  return (
    <Notice
      kind="warning"
      message="Before you turn it"
      remedy="Battery, ignition and fuel off; plugs out; out of gear. Turn by hand only, never with the starter while the stop is in. Stop at any resistance that you cannot explain. The engine maker’s manual has the last word."
    />
  );
}

interface ProvedProps {
  readonly onNext: () => void;
  readonly nextLabel: string;
  readonly onProveAgain: () => void;
  readonly onFindAgain: () => void;
  readonly undo: (() => void) | null;
}

function Proved({ onNext, nextLabel, onProveAgain, onFindAgain, undo }: ProvedProps) {
  useShortcuts({ n: onNext, Enter: onNext, u: () => undo?.() });
  return (
    <View>
      <View className="flex-row flex-wrap justify-between gap-x-4 px-4 wide:px-0 pb-2">
        <QuietButton label="Prove it once more" onPress={onProveAgain} />
        <QuietButton label="The wheel was moved: find TDC again" onPress={onFindAgain} />
        {undo ? <QuietButton label="Undo" testID="undo" onPress={undo} /> : null}
      </View>
      <PrimaryButton testID="next" label={nextLabel} onPress={onNext} />
    </View>
  );
}

function describeWheel({ build, zero }: Report, reading: string | null): string {
  const under = reading ? `Under the pointer: ${reading}.` : 'Nothing typed yet.';
  const found = zero.result ? ` ${wheelDegrees(zero.result.blockedArc)} blocked by the stop.` : '';
  return `Degree wheel, engine running ${build.engine.rotation}. ${under}${found}`;
}
