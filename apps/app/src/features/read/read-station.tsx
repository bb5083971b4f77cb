import { Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { type WheelReading, formatReading } from '@yosoku/core/crank/wheel';
import type { Report } from '@yosoku/core/logbook/report';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { placeHref } from '@/features/builds/station-line';
import type { StationProps } from '@/features/builds/station-screen';
import { newId } from '@/features/builds/use-logbook';
import { PairedReadings } from '@/features/builds/paired-readings';
import { StationBody } from '@/features/builds/station-body';
import { useStationWidth, useWheelSize } from '@/features/builds/use-station-width';
import { figureOf } from '@/features/entry/figure';
import { ReadingPad } from '@/features/entry/reading-pad';
import { useReadingEntry } from '@/features/entry/use-reading-entry';
import { useShortcuts } from '@/features/entry/use-shortcuts';
import { DegreeWheel, type WheelMark } from '@/pictures/degree-wheel';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { DropField, useDrop } from './drop-field';

const FLANK_WORD = { opening: 'before peak', closing: 'after peak' } as const;

/** Read: the intake centreline by equal drop from peak lift. */
export function ReadStation({ report, write, undo }: StationProps) {
  const { build, zero, read, card } = report;
  const ring = zero.ring;
  const width = useStationWidth();
  const size = useWheelSize();
  const router = useRouter();
  const [again, setAgain] = useState(false);
  const [dropAsked, setDropAsked] = useState(false);
  const drop = useDrop(report);

  const trial = report.trials.at(-1);
  const round = trial?.rounds.find((each) => each.id === read.round) ?? trial?.rounds.at(-1);
  const finished = trial?.centreline && read.round === null && !again ? trial.centreline : null;
  const inSight = read.round === null && !finished ? undefined : round;
  const entry = useReadingEntry(`${build.id}/read`, ring, inSight?.readings.at(-1)?.at ?? 0);

  const record = (wheel: WheelReading): void => {
    if (drop.mm === null) {
      setDropAsked(true);
      return;
    }
    const trialId = read.trial ?? write('trial.begun', { after: null });
    write('reading.taken', {
      setting: zero.setting,
      trial: trialId,
      round: read.round ?? newId(),
      cylinder: 1,
      valve: 'intake',
      sitsOn: 'lifter',
      shows: { kind: 'below-peak', flank: read.flank, drop: drop.mm },
      approach: 'forward',
      wheel,
    });
    setAgain(false);
    setDropAsked(false);
  };
  const decide = (): void => router.replace(placeHref(build.id, 'decide'));
  const trouble = trial?.rounds.find((each) => each.problem)?.problem;
  const shown = figureOf(entry, finished ? (inSight?.readings.at(-1)?.shows ?? null) : null);
  const offset = zero.result?.tdc ?? 0;

  const shows = (flank: 'opening' | 'closing') => inSight?.readings.find((each) => each.flank === flank)?.shows;

  return (
    <StationBody
      footer={
        finished ? (
          <Finished onNext={decide} onAgain={() => setAgain(true)} undo={undo} />
        ) : (
          <ReadingPad
            entry={entry}
            ring={ring}
            rotation={build.engine.rotation}
            recordLabel={`Record ${FLANK_WORD[read.flank]}`}
            onRecord={record}
            onUndo={undo}
            onNext={decide}
            width={width}
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
          marks={marksOf(report, inSight, offset)}
          tdc={zero.state === 'proved' ? offset : null}
          turn={finished ? null : 'forward'}
          figure={shown.figure}
          word={shown.word}
          description={describe(report, entry.state.state === 'whole' ? formatReading(entry.state.reading) : null)}
          {...(finished ? {} : { onTurn: entry.turnTo })}
        />
        <PairedReadings
          left={{ shows: shows('opening'), label: 'before peak' }}
          right={{ shows: shows('closing'), label: 'after peak' }}
        />
      </View>
      <View className="gap-2 px-4 wide:px-0 pb-3 pt-2">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {finished ? `Intake centreline ${computedDegrees(finished.mean, 2)} ATDC.` : sentenceFor(report, drop.echo)}
        </Words>
        {finished ? <Words look="soft">{finishedWords(finished, card.intakeCentreline)}</Words> : null}
        {trouble ? <Notice kind="warning" message={trouble.message} remedy={trouble.remedy} testID="trouble" /> : null}
        {finished || read.round ? null : <DropField drop={drop} asked={dropAsked} />}
        {zero.state === 'proved' ? null : (
          <Notice
            kind="warning"
            message={zero.state === 'void' ? 'The zero is void.' : 'TDC is not proved on this wheel.'}
            remedy="You can read on and nothing is lost, but there will be no verdict from it until the zero is proved."
          >
            <Link href={placeHref(build.id, 'zero')} replace className="py-2 font-medium text-[16px] text-brass">
              Go to Zero
            </Link>
          </Notice>
        )}
      </View>
    </StationBody>
  );
}

function Finished(props: { onNext: () => void; onAgain: () => void; undo: (() => void) | null }) {
  const { onNext, onAgain, undo } = props;
  useShortcuts({ n: onNext, Enter: onNext, u: () => undo?.() });
  return (
    <View>
      <View className="flex-row flex-wrap items-center justify-between gap-x-4 px-4 wide:px-0">
        <QuietButton label="Measure it once more" testID="again" onPress={onAgain} />
        {undo ? <QuietButton label="Undo" testID="undo" onPress={undo} /> : null}
      </View>
      <PrimaryButton testID="next" label="See the verdict" onPress={onNext} />
    </View>
  );
}

/** The core speaks of "the drop" while none has been recorded; the field knows better. */
const sentenceFor = ({ read }: Report, echo: string | null): string =>
  read.round === null && echo
    ? read.sentence.replace(/forward to .* before peak/, `forward to ${echo} before peak`)
    : read.sentence;

function finishedWords(found: { spread: number; count: number }, card: number | null): string {
  const pairs =
    found.count === 1
      ? 'From one pair of readings.'
      : `Mean of ${found.count} pairs, ${computedDegrees(found.spread)} apart.`;
  return card === null ? pairs : `${pairs} The card says ${card}°.`;
}

function marksOf(
  report: Report,
  round: Report['trials'][number]['rounds'][number] | undefined,
  zero: number,
): WheelMark[] {
  const measured = (round?.readings ?? []).map(({ at }): WheelMark => ({ at, kind: 'measured' }));
  const wanted = report.target.intakeCentreline;
  return [...(wanted === null ? [] : [{ at: wanted + zero, kind: 'card' as const }]), ...measured];
}

function describe({ build, target }: Report, reading: string | null): string {
  const under = reading ? `Under the pointer: ${reading}.` : 'Nothing typed yet.';
  const wanted =
    target.intakeCentreline === null
      ? ''
      : ` The target centreline, ${target.intakeCentreline}° after TDC, is marked hollow.`;
  return `Degree wheel, engine running ${build.engine.rotation}. ${under}${wanted}`;
}
