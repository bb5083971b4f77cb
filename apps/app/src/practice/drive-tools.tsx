import { useMemo } from 'react';
import { View } from 'react-native';
import { VALVES } from '@yosoku/core/cam/card';
import { type Setting, reachOf, settingLabel, straightUp } from '@yosoku/core/timing-set/hardware';
import { makeHardware } from '@yosoku/core/simulation/driven-cam';
import { makeRandom } from '@yosoku/core/statistics/random';
import { camPut } from '@yosoku/core/simulation/whole-engine';
import { type PracticeRun, drivePut } from '@/store/practice-slice';
import { useAppDispatch } from '@/store/store';
import { QuietButton } from '@/ui/buttons';
import { Words } from '@/ui/words';
import type { LiveEngine } from './live-engine';

/** One press moves a scale by so much, in its own unit. */
const SCALE_STEP = 0.5;

/** The timing hardware of the practice engine, put elsewhere by hand. What it really gives is part of the hidden truth. */
export function DriveTools({ live, run }: { readonly live: LiveEngine; readonly run: PracticeRun }) {
  const dispatch = useAppDispatch();
  const { base, seed } = run.scenario;
  const real = useMemo(
    () => base.parts.map(({ hardware }, at) => makeHardware(hardware, makeRandom(seed * 31 + at + 1))),
    [base.parts, seed],
  );
  const put = (at: number, to: Setting): void => {
    const part = base.parts[at];
    const from = run.settings[at] ?? part?.at;
    if (!part || !from) return;
    const gave = real[at]?.put(from, to) ?? 0;
    live.change((stand) => {
      const advance = { ...stand.advance };
      for (const valve of VALVES) if (part.cam === 'all' || part.cam === valve) advance[valve] += gave;
      return camPut(live.engine, stand, advance);
    });
    dispatch(drivePut({ id: run.id, at, setting: to }));
  };
  return (
    <View className="gap-2">
      {base.parts.map((part, at) => {
        const now = run.settings[at] ?? part.at;
        const [back, on] = [-1, 1].map((way) => beside(part.hardware, now, way));
        return (
          <View key={part.name} className="flex-row flex-wrap items-center justify-between gap-x-3">
            <View className="shrink grow">
              <Words look="label">{part.name}</Words>
              <Words look="soft" testID={`drive-${at}`}>{`It stands at ${settingLabel(part.hardware, now)}.`}</Words>
            </View>
            <View className="flex-row">
              <QuietButton
                testID={`drive-back-${at}`}
                label="‹ One back"
                disabled={!back}
                onPress={() => back && put(at, back)}
              />
              <QuietButton
                testID={`drive-on-${at}`}
                label="One on ›"
                disabled={!on}
                onPress={() => on && put(at, on)}
              />
            </View>
          </View>
        );
      })}
    </View>
  );
}

/** The place next to one, by its advance; none at the end. */
function beside(
  hardware: PracticeRun['scenario']['base']['parts'][number]['hardware'],
  now: Setting,
  way: number,
): Setting | null {
  const reach = reachOf(hardware);
  if (reach.kind === 'range') {
    const from = 'at' in now ? now.at : 0;
    const to = Math.round((from + way * SCALE_STEP) * 1000) / 1000;
    return to < reach.from || to > reach.to ? null : { at: to };
  }
  const sorted = [...reach.positions].sort((a, b) => a.advance - b.advance);
  const here = 'mark' in now ? now.mark : straightUp(hardware);
  const next = sorted[sorted.findIndex(({ mark }) => mark === here) + way];
  return next ? { mark: next.mark } : null;
}
