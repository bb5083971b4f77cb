import { Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { type WheelReading, formatReading } from '@yosoku/core/crank/wheel';
import type { Report } from '@yosoku/core/logbook/report';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { placeHref } from '@/features/builds/station-line';
import type { StationProps } from '@/features/builds/station-screen';
import { newId } from '@/features/builds/use-logbook';
import { useStationWidth } from '@/features/builds/use-station-width';
import { figureOf } from '@/features/entry/figure';
import { ReadingPad } from '@/features/entry/reading-pad';
import { useReadingEntry } from '@/features/entry/use-reading-entry';
import { useShortcuts } from '@/features/entry/use-shortcuts';
import { DegreeWheel, type WheelMark } from '@/pictures/degree-wheel';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { DropField, useDrop } from './drop-field';

const FLANK_WORD = { opening: 'before peak', closing: 'after peak' } as const;

/** Read: the intake centreline by equal drop from peak lift. */
export function ReadStation({ report, write, undo }: StationProps) {
  const { build, zero, read, card } = report;
  const wide = useWide();
  const width = useStationWidth();
  const router = useRouter();
  const [again, setAgain] = useState(false);
  const [dropAsked, setDropAsked] = useState(false);
  const drop = useDrop(report);

  const trial = report.trials.at(-1);
  const round = trial?.rounds.find((each) => each.id === read.round) ?? trial?.rounds.at(-1);
  const finished = trial?.centreline && read.round === null && !again ? trial.centreline : null;
  const inSight = read.round === null && !finished ? undefined : round;
  const entry = useReadingEntry(`${build.id}/read`, build.wheel, inSight?.readings.at(-1)?.at ?? 0);

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

  return (
    <View className="flex-1">
      <View className="items-center pt-2">
        <DegreeWheel
          ring={build.wheel}
          rotation={build.engine.rotation}
          position={entry.position}
          size={wide ? 430 : Math.min(width - 48, 300)}
          marks={marksOf(report, inSight, offset)}
          tdc={zero.state === 'proved' ? offset : null}
          turn={finished ? null : 'forward'}
          figure={shown.figure}
          word={shown.word}
          description={describe(report, entry.state.state === 'whole' ? formatReading(entry.state.reading) : null)}
          {...(finished ? {} : { onTurn: entry.turnTo })}
        />
      </View>
      <View className="min-h-[48px] flex-row justify-between gap-4 px-4">
        <Side label="before peak" shows={inSight?.readings.find((each) => each.flank === 'opening')?.shows} />
        <Side label="after peak" shows={inSight?.readings.find((each) => each.flank === 'closing')?.shows} end />
      </View>
      <View className="gap-2 px-4 pb-3 pt-1">
        <Words look="sentence" testID="sentence" aria-live="polite">
          {finished ? `Intake centreline ${computedDegrees(finished.mean, 2)} ATDC.` : sentenceFor(report, drop.echo)}
        </Words>
        {finished ? <Words look="soft">{finishedWords(finished, card.intakeCentreline)}</Words> : null}
        {zero.state === 'proved' ? null : (
          <Notice
            kind="warning"
            message="TDC is not proved on this wheel."
            remedy="You can read on and nothing is lost, but there will be no verdict from it until the zero is proved."
          >
            <Link href={placeHref(build.id, 'zero')} replace className="py-2 font-medium text-[16px] text-brass">
              Go to Zero
            </Link>
          </Notice>
        )}
        {trouble ? <Notice kind="warning" message={trouble.message} remedy={trouble.remedy} testID="trouble" /> : null}
        {finished || read.round ? null : <DropField drop={drop} asked={dropAsked} />}
      </View>
      <View className="grow" />
      <View className="flex-row flex-wrap items-center justify-end gap-x-4 px-4">
        {finished ? <QuietButton label="Measure it once more" testID="again" onPress={() => setAgain(true)} /> : null}
        {undo ? <QuietButton label="Undo" testID="undo" onPress={undo} /> : null}
      </View>
      {finished ? (
        <Finished onNext={decide} undo={undo} />
      ) : (
        <ReadingPad
          entry={entry}
          ring={build.wheel}
          rotation={build.engine.rotation}
          recordLabel={`Record ${FLANK_WORD[read.flank]}`}
          onRecord={record}
          onUndo={undo}
          onNext={decide}
          width={width}
        />
      )}
    </View>
  );
}

function Side({ label, shows, end = false }: { label: string; shows: string | undefined; end?: boolean }) {
  return (
    <View className={end ? 'items-end' : ''}>
      <Words look="figure" className="text-[20px]">
        {shows ?? '–'}
      </Words>
      <Words look="soft">{label}</Words>
    </View>
  );
}

function Finished({ onNext, undo }: { readonly onNext: () => void; readonly undo: (() => void) | null }) {
  useShortcuts({ n: onNext, Enter: onNext, u: () => undo?.() });
  return <PrimaryButton testID="next" label="See the verdict" onPress={onNext} />;
}

/** The core speaks of "the drop" while none has been recorded; the field knows better. */
const sentenceFor = ({ read }: Report, echo: string | null): string =>
  read.round === null && echo ? read.sentence.replace(/forward to .* before peak/, `forward to ${echo} before peak`) : read.sentence;

function finishedWords(found: { spread: number; count: number }, card: number | null): string {
  const pairs =
    found.count === 1 ? 'From one pair of readings.' : `Mean of ${found.count} pairs, ${computedDegrees(found.spread)} apart.`;
  return card === null ? pairs : `${pairs} The card says ${card}°.`;
}

function marksOf(report: Report, round: Report['trials'][number]['rounds'][number] | undefined, zero: number): WheelMark[] {
  const measured = (round?.readings ?? []).map(({ at }): WheelMark => ({ at, kind: 'measured' }));
  const wanted = report.target.intakeCentreline;
  return [...(wanted === null ? [] : [{ at: wanted + zero, kind: 'card' as const }]), ...measured];
}

function describe({ build, target }: Report, reading: string | null): string {
  const under = reading ? `Under the pointer: ${reading}.` : 'Nothing typed yet.';
  const wanted = target.intakeCentreline === null ? '' : ` The target centreline, ${target.intakeCentreline}° after TDC, is marked hollow.`;
  return `Degree wheel, engine running ${build.engine.rotation}. ${under}${wanted}`;
}
