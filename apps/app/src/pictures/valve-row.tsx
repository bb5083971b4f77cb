import type { ReactElement } from 'react';
import { Pressable, View } from 'react-native';
import Svg, { Circle, Path, Rect } from 'react-native-svg';
import { VALVES, type Valve } from '@yosoku/core/cam/card';
import type { Report } from '@yosoku/core/report/report';
import { type ValveName, isSameValve, valveWords } from '@yosoku/core/valve-train/valve-name';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';

type LashedValve = NonNullable<Report['lash']['job']>['valves'][number];
type State = LashedValve['state'];

const STATE_WORDS: Readonly<Record<State, string>> = {
  due: 'to be set',
  set: 'set, to be looked at again',
  good: 'set and found as left',
  loose: 'loose',
  tight: 'tight',
};
/** More cylinders than this stand in a second row. */
const MOST_BESIDE = 8;
const SIDE = 26;

interface ValveRowProps {
  readonly valves: readonly LashedValve[];
  readonly cylinders: number;
  /** The one that is set next, and those that may be set where the crank stands. */
  readonly next: ValveName | null;
  readonly here: readonly Pick<ValveName, 'cylinder' | 'valve'>[];
  readonly onChoose: ((valve: ValveName) => void) | null;
}

/** All valves of the engine as they lie under the covers: what is done, what is due, which is next. Intake round, exhaust square. */
export function ValveRow({ valves, cylinders, next, here, onChoose }: ValveRowProps) {
  const rows = Math.ceil(cylinders / MOST_BESIDE);
  const each = Math.ceil(cylinders / rows);
  return (
    <View className="gap-3" testID="valve-row">
      {Array.from({ length: rows }, (_, row) => (
        <View key={row} className="flex-row">
          {Array.from({ length: each }, (_none, at) => row * each + at + 1)
            .filter((cylinder) => cylinder <= cylinders)
            .map((cylinder) => (
              <View key={cylinder} className="max-w-[64px] grow basis-0 items-stretch border-t border-line">
                <Words look="figure" tone="soft" className="text-center">
                  {cylinder}
                </Words>
                {VALVES.flatMap((valve) =>
                  valves
                    .filter((own) => own.cylinder === cylinder && own.valve === valve)
                    .map((own) => (
                      <ValveKey
                        key={valveWords(own)}
                        valve={own}
                        isNext={next !== null && isSameValve(own, next)}
                        isHere={here.some((one) => one.cylinder === cylinder && one.valve === valve)}
                        onPress={onChoose && (() => onChoose(own))}
                      />
                    )),
                )}
              </View>
            ))}
        </View>
      ))}
    </View>
  );
}

interface ValveKeyProps {
  readonly valve: LashedValve;
  readonly isNext: boolean;
  readonly isHere: boolean;
  readonly onPress: (() => void) | null;
}

function ValveKey({ valve: own, isNext, isHere, onPress }: ValveKeyProps) {
  const { cylinder, valve, which, state, shows } = own;
  const number = which === null ? '' : ` ${which}`;
  return (
    <Pressable
      role="button"
      testID={`valve-${cylinder}-${valve}${which === null ? '' : `-${which}`}`}
      aria-label={`Cylinder ${cylinder}, ${valve}${number}: ${STATE_WORDS[state]}${shows === '' ? '' : `, ${shows}`}`}
      aria-pressed={isNext}
      disabled={onPress === null}
      onPress={() => onPress?.()}
      className={`h-[44px] items-center justify-center border-b-4 ${isNext ? 'border-b-brass bg-raised' : isHere ? 'border-b-line' : 'border-b-transparent'}`}
    >
      <ValveSign valve={valve} state={state} />
    </Pressable>
  );
}

const TICK = 'M7.5 13.5 L11.5 17.5 L19 9';
const BANG = 'M13 6.5 V14.5 M13 18 V19.5';

/** What stands in it: one that is not what it was left at is red, one found as it was left is done. */
const MARKS: Readonly<Record<State, string | null>> = { due: null, set: null, good: TICK, loose: BANG, tight: BANG };

interface Drawn {
  readonly stroke: string;
  readonly strokeWidth: number;
  readonly fill: string;
}
const OUTLINES: Readonly<Record<Valve, (drawn: Drawn) => ReactElement>> = {
  intake: (drawn) => <Circle cx="13" cy="13" r="11" {...drawn} />,
  exhaust: (drawn) => <Rect x="3" y="3" width="20" height="20" {...drawn} />,
};
const LOWER_HALVES: Readonly<Record<Valve, string>> = {
  intake: 'M2 13 A11 11 0 0 0 24 13 Z',
  exhaust: 'M3 13 H23 V23 H3 Z',
};

/** Hollow: due. Half full: set, to be looked at again. Full with a tick: found as left. Red with a bang: another than it was left. */
function ValveSign({ valve, state }: { readonly valve: Valve; readonly state: State }) {
  const theme = useTheme();
  const mark = MARKS[state];
  const colour = mark === BANG ? theme.danger : theme[valve];
  return (
    <Svg width={SIDE} height={SIDE} viewBox="0 0 26 26" aria-hidden>
      {state === 'set' ? <Path d={LOWER_HALVES[valve]} fill={colour} /> : null}
      {OUTLINES[valve]({ stroke: colour, strokeWidth: 2, fill: mark ? colour : 'none' })}
      {mark ? <Path d={mark} fill="none" stroke={theme.ground} strokeWidth="2.8" strokeLinecap="round" /> : null}
    </Svg>
  );
}
