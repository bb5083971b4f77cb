import { useEffect, useRef } from 'react';
import type { Entry } from '@yosoku/core/record/entry';
import { spokenBack } from '@yosoku/core/report/spoken';
import { useStation } from '@/logbook/station';
import { selectEntries } from '@/store/selectors';
import { selectSettings, settingsChanged } from '@/store/settings-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { useAwake } from '@/ui/awake';
import { signalKept } from '@/ui/kept-signal';
import { useReadBack } from '@/ui/voice';
import { isHandsOn } from './hands-on';
import type { Place } from './station-line';

/** What a station does for hands that are busy, whichever it is: stays awake, and makes itself heard when a reading is kept. */
export function AtEngine({ here }: { readonly here: Place }) {
  const { report } = useStation();
  const { id, units } = report.build;
  const entries = useAppSelector((state) => selectEntries(state, id));
  const settings = useAppSelector(selectSettings);
  const readBack = useReadBack();
  useAwake(isHandsOn(here));
  const dispatch = useAppDispatch();
  const shopId = useAppSelector((state) => state.session.account?.shopId);
  const { practice } = report.build;
  useEffect(() => {
    if (shopId !== undefined && !practice) dispatch(settingsChanged({ last: { shopId, buildId: id, place: here } }));
  }, [dispatch, shopId, practice, id, here]);
  const seen = useRef<string | null>(null);
  useEffect(() => {
    const before = seen.current;
    const last = entries.at(-1);
    seen.current = last?.id ?? '';
    // Those that were there already; and those of another device, which come from the server with their place in the logbook.
    if (before === null || !last || last.id === before || last.seq !== undefined) return;
    const kept = readingOf(last);
    if (!kept) return;
    signalKept(settings);
    readBack(spokenBack(kept, units));
  });
  return null;
}

function readingOf(entry: Entry): Parameters<typeof spokenBack>[0] | null {
  if (entry.kind === 'zero.reading') return { wheel: entry.body.wheel, lift: entry.body.indicator ?? null };
  if (entry.kind !== 'reading.taken') return null;
  const { shows, wheel } = entry.body;
  return { wheel, lift: 'lift' in shows ? shows.lift : 'drop' in shows ? shows.drop : null };
}
