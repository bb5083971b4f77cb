import { useRouter } from 'expo-router';
import { Suspense, lazy, useState } from 'react';
import { READ_METHODS, type Slot } from '@yosoku/core/measure/read-methods';
import type { Report } from '@yosoku/core/report/report';
import type { BodyOf } from '@yosoku/core/record/entry';
import { placeHref } from '@/shell/station-line';
import { useStation } from '@/logbook/station';
import { LobeDone } from './lobe-done';
import { newId } from '@/logbook/use-logbook';
import { ByIndicator } from './by-indicator';
import { ByWheel } from './by-wheel';
import { ChooseReading } from './choose-reading';
import { ClosingCheck } from '@/steps/closing-check';
import { ReadBar } from './read-bar';
import type { Reading } from './reading';
import { RoundDone } from './round-done';
import { useReadingChoice } from './use-reading-choice';

/** A trace is seldom taken: it is fetched when it is chosen. */
const TraceReading = lazy(async () => ({ default: (await import('./trace-reading')).TraceReading }));

type Shows = BodyOf<'reading.taken'>['shows'];

/** What the entry says of the indicator. */
function showsOf({ shows, flank }: Slot, figure: number): Shows {
  switch (shows) {
    case 'below-peak':
      return { kind: shows, flank: flank ?? 'opening', drop: figure };
    case 'above-base':
      return { kind: shows, flank: flank ?? 'opening', lift: figure };
    case 'by-feel':
      return { kind: shows, flank: flank ?? 'opening' };
    default:
      return { kind: shows, lift: figure };
  }
}

/** Read: the cam, by whichever method the engine allows. */
export function ReadStation() {
  const { report, write, undo } = useStation();
  const { build, zero, read, trials } = report;
  const router = useRouter();
  const choice = useReadingChoice(report);
  const [choosing, setChoosing] = useState(false);
  const [again, setAgain] = useState(false);
  const [closing, setClosing] = useState(false);
  const { method, valve, cylinder, sitsOn, next } = choice;
  const { reads, slots } = READ_METHODS[method];

  const reading: Reading = {
    record: (figure, wheel, { approach = next.slot.approach, box } = {}) => {
      const trial = read.trial ?? write('trial.begun', { after: null });
      write('reading.taken', {
        setting: zero.setting,
        trial,
        round: next.round ?? (reads === 'curve' ? traceRound(report, choice) : null) ?? newId(),
        method,
        cylinder,
        valve,
        sitsOn,
        shows:
          next.slot.shows === 'tdc-lift' && choice.zeroedAtTdc
            ? { kind: 'tdc-lift', lift: figure, zeroed: 'tdc' }
            : showsOf(next.slot, figure),
        approach,
        wheel,
        ...(box ? { from: { box } } : {}),
      });
      choice.stayIn(trial);
      setAgain(false);
    },
    decide: () => router.replace(placeHref(build.id, 'decide')),
    undo,
  };
  if (closing) return <ClosingCheck onDone={reading.decide} />;
  if (choosing)
    return (
      <ChooseReading
        choice={choice}
        onDone={() => {
          setChoosing(false);
          setAgain(reads !== 'curve');
        }}
      />
    );
  const bar = <ReadBar choice={choice} onMethod={() => setChoosing(true)} />;
  const rounds = trials
    .at(-1)
    ?.rounds.filter(
      (each) => each.method === method && each.valve === valve && each.cylinder === cylinder && each.sitsOn === sitsOn,
    );
  const round = rounds?.at(-1);
  if (reads === 'curve')
    return (
      <Suspense fallback={bar}>
        <TraceReading choice={choice} reading={reading} bar={bar} typing={again} onType={() => setAgain(true)} />
      </Suspense>
    );
  if (round && round.lacking === 0 && round.problem === null && next.round === null && !again)
    return choice.beside ? (
      <LobeDone choice={choice} round={round} reading={reading} bar={bar} onAgain={() => setAgain(true)} />
    ) : (
      <RoundDone
        choice={choice}
        reading={reading}
        bar={bar}
        onAgain={() => setAgain(true)}
        onOther={() => setChoosing(true)}
        onClosing={read.closing.state === 'due' ? () => setClosing(true) : null}
      />
    );
  const shown = round && (next.round !== null || round.problem) && !(again && next.round === null) ? round : undefined;
  return slots[0]?.asks === 'lift' ? (
    <ByIndicator choice={choice} reading={reading} bar={bar} />
  ) : (
    <ByWheel choice={choice} reading={reading} bar={bar} round={shown} />
  );
}

/** The round that a typed trace of this valve goes on with: the newest, unless the indicator was moved. */
const traceRound = (
  { trials }: Report,
  { method, valve, cylinder, sitsOn }: ReturnType<typeof useReadingChoice>,
): string | null =>
  trials
    .at(-1)
    ?.rounds.findLast(
      (each) => each.method === method && each.valve === valve && each.cylinder === cylinder && each.sitsOn === sitsOn,
    )?.id ?? null;
