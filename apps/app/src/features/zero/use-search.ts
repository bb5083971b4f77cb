import { useRouter } from 'expo-router';
import { useState } from 'react';
import type { WheelReading } from '@yosoku/core/crank/wheel';
import { readingSentence } from '@yosoku/core/report/report-zero';
import type { Report } from '@yosoku/core/report/report';
import { type TdcSide, ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import { useFigure } from '@/forms/figure-field';
import { usePushed } from './pushed-valve';
import { useReadingEntry } from '@/forms/use-reading-entry';
import { newId } from '@/logbook/use-logbook';
import { placeHref } from '@/shell/station-line';
import { useStation } from '@/logbook/station';

export type Pass = Report['zero']['passes'][number];

export const OTHER_SIDE = { before: 'after', after: 'before' } as const;

/** The pass that the picture shows: the one being made, else the newest of the wheel's present position, else the one before. */
function passInSight(zero: Report['zero']): Pass | undefined {
  const here = zero.passes.filter((pass) => pass.setting === zero.setting);
  return here.at(-1) ?? (zero.state === 'set' ? undefined : zero.passes.at(-1));
}

/** Where the wheel shows true TDC, as far as that is known. */
function tdcOf({ state, setting, result }: Report['zero']): number | null {
  if (state === 'found' || state === 'failed') return result?.tdc ?? null;
  return setting === null ? null : (result?.tdc ?? 0);
}

/** The search for true TDC as it stands on the screen: what is read next, and how it is written down. */
export function useSearch() {
  const { report, write } = useStation();
  const { zero, build } = report;
  const table = ZERO_METHODS[zero.method ?? 'positive-stop'];
  const router = useRouter();
  const figure = useFigure(report);
  const pushed = usePushed(report);
  const [otherSide, setOtherSide] = useState(false);
  const [another, setAnother] = useState(false);
  const repeats = another && zero.step.does !== 'read';
  const step = repeats
    ? ({ does: 'read', side: 'before', pass: null, setting: zero.setting, figure: null } as const)
    : zero.step;
  const fresh = step.does === 'read' && step.pass === null;
  const swapped = fresh && otherSide && table.readings === 'pair';
  const asked: TdcSide | null = step.does === 'read' ? step.side : null;
  const side = asked && swapped ? OTHER_SIDE[asked] : asked;
  const pass = fresh && zero.passes.length > 0 ? undefined : passInSight(zero);
  const entry = useReadingEntry(`${build.id}/zero`, 'zero', pass?.readings.at(-1)?.at ?? 0);
  const troubled = zero.passes.filter((each) => each.setting === zero.setting).find((each) => each.problem);
  // What is on the screen alone, the side and the figure, the Report does not know.
  const ownWords = otherSide || (another && step.does === 'read') || (figure.needed && !troubled);

  const lacksFigure = (figure.needed && figure.mm === null) || (pushed.needed && pushed.mm === null);
  const record = (wheel: WheelReading, box?: string): void => {
    if (step.does !== 'read' || side === null || zero.id === null) return;
    if (lacksFigure) return;
    write('zero.reading', {
      zero: zero.id,
      setting: step.setting,
      pass: step.pass ?? newId(),
      side,
      wheel,
      ...(figure.needed && figure.mm !== null ? { indicator: figure.mm } : {}),
      ...(pushed.mm === null ? {} : { pushed: pushed.mm }),
      ...(box ? { from: { box } } : {}),
    });
    setOtherSide(false);
    setAnother(false);
  };
  return {
    table,
    step,
    side,
    pass,
    entry,
    figure,
    pushed,
    lacksFigure,
    troubled,
    fresh,
    tdc: tdcOf(zero),
    sentence:
      side && ownWords
        ? readingSentence(zero, side, figure.words, report.prepare.asItStands?.oneWay ?? false)
        : zero.sentence,
    record,
    /** The side that is met second can be read first. */
    otherSide: { chosen: otherSide, change: () => setOtherSide(!otherSide) },
    repeat: () => setAnother(true),
    next: () => router.replace(placeHref(build.id, report.target.intakeCentreline === null ? 'card' : 'read')),
  };
}

export type Search = ReturnType<typeof useSearch>;
