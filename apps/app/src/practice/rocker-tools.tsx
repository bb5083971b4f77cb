import { View } from 'react-native';
import Svg, { G, Line, Rect, Text as SvgText } from 'react-native-svg';
import { type RockerStand, type RockerWorld, tipShows } from '@yosoku/core/simulation/rocker-world';
import type { Stand } from '@yosoku/core/simulation/whole-engine';
import { type LengthUnit, formatComputedLength, formatLength, inches } from '@yosoku/core/units/length';
import { useTheme } from '@/ui/theme';
import { useShortcuts } from '@/ui/use-shortcuts';
import { Words } from '@/ui/words';
import type { LiveEngine } from './live-engine';
import { Tool } from './tool';

interface RockerToolsProps {
  readonly live: LiveEngine;
  readonly world: RockerWorld;
  readonly stand: RockerStand;
  readonly units: LengthUnit;
  readonly width: number;
}

/** The adjustable pushrod is turned by so much at a time: small, large. mm. */
const STEPS = { in: [inches('0.005'), inches('0.050')], mm: [0.1, 1] } as const;
const LONGEST = 400;

const SEEN = {
  right: 'the arm is square to the stem',
  above: 'the roller stands above the right angle',
  below: 'the roller stands below the right angle',
} as const;

/** What hands do at the rocker: set the adjustable pushrod, mark the tip, turn the engine over, look at the pattern. */
export function RockerTools({ live, world, stand, units, width }: RockerToolsProps) {
  const change = (how: (now: RockerStand) => RockerStand): void =>
    live.change((now: Stand) => (now.rockers ? { ...now, rockers: how(now.rockers) } : now));
  const [small, large] = STEPS[units];
  const set = (by: number) => (): void =>
    change(({ length }) => ({ length: Math.max(1, Math.min(LONGEST, length + by)), shows: null }));
  const over = (): void => change((now) => ({ ...now, shows: now.length }));
  useShortcuts({ a: set(-large), s: set(-small), d: set(small), f: set(large), t: over });
  const shows = stand.shows === null ? null : tipShows(world, stand.shows);
  const told =
    shows === null
      ? 'the tip is freshly marked. Turn it over'
      : `at mid-lift ${SEEN[shows.seen]}; it lifts ${formatLength(world.rocker.lift, units)}`;
  return (
    <View className="border-t border-hairline">
      <Words look="label" testID="pushrod-shows" aria-live="polite" className="px-4 pt-1">
        {`Pushrod ${formatLength(stand.length, units)}: ${told}.`}
      </Words>
      {shows === null ? null : <TipPicture shows={shows} tip={world.tip} units={units} width={width} />}
      <View className="flex-row flex-wrap">
        <Tool
          testID="tool-much-shorter"
          label={`−${formatLength(large, units)}`}
          says={`−${formatLength(large, units)}: the pushrod shorter`}
          onPress={set(-large)}
        />
        <Tool
          testID="tool-shorter"
          label={`−${formatLength(small, units)}`}
          says={`−${formatLength(small, units)}: the pushrod shorter`}
          onPress={set(-small)}
        />
        <Tool
          testID="tool-longer"
          label={`+${formatLength(small, units)}`}
          says={`+${formatLength(small, units)}: the pushrod longer`}
          onPress={set(small)}
        />
        <Tool
          testID="tool-much-longer"
          label={`+${formatLength(large, units)}`}
          says={`+${formatLength(large, units)}: the pushrod longer`}
          onPress={set(large)}
        />
        <Tool
          testID="tool-over"
          label="Turn over"
          says="Turn over: twice by hand, the tip freshly marked"
          onPress={over}
        />
      </View>
    </View>
  );
}

interface TipPictureProps {
  readonly shows: { readonly pattern: number; readonly offset: number };
  readonly tip: number;
  readonly units: LengthUnit;
  readonly width: number;
}

const HEIGHT = 74;
const SIDE = 16;
/** Marks of the scale, mm: every second one is longer. */
const SCALE = { in: inches('0.010'), mm: 0.2 } as const;

/** The tip of the valve, large, with what the roller rubbed off it and a scale to read that by. The pivot lies to the left. */
function TipPicture({ shows: { pattern, offset }, tip, units, width }: TipPictureProps) {
  const theme = useTheme();
  const scale = (Math.min(width, 420) - 2 * SIDE) / tip;
  const step = SCALE[units];
  const marks = Array.from({ length: Math.floor(tip / step) + 1 }, (_, i) => i);
  const from = (tip - pattern) / 2 + offset;
  return (
    <View
      role="img"
      aria-label={`The tip: a pattern ${formatComputedLength(pattern, units)} wide, its middle ${formatComputedLength(Math.abs(offset), units)} ${offset < 0 ? 'toward the pivot' : 'away from the pivot'}. The pivot lies to the left.`}
      testID="tip-picture"
      className="items-center"
    >
      <Svg width={tip * scale + 2 * SIDE} height={HEIGHT} aria-hidden>
        <Rect
          x={SIDE}
          y={4}
          width={tip * scale}
          height={38}
          rx={14}
          fill={theme.raised}
          stroke={theme.ink}
          strokeWidth={1.5}
        />
        <Rect x={SIDE + from * scale} y={5} width={pattern * scale} height={36} fill={theme.intake} opacity={0.6} />
        {marks.map((at) => (
          <G key={at}>
            <Line
              x1={SIDE + at * step * scale}
              x2={SIDE + at * step * scale}
              y1={46}
              y2={at % 5 === 0 ? 57 : 52}
              stroke={theme.ink}
              strokeWidth={1}
            />
            {at % 10 === 0 ? (
              <SvgText
                x={SIDE + at * step * scale}
                y={71}
                fontSize={14}
                textAnchor="middle"
                fontFamily="BarlowSemiCondensed_400Regular"
                fill={theme.soft}
              >
                {units === 'in' ? (at * 0.01).toFixed(1) : String(Math.round(at * 2) / 10)}
              </SvgText>
            ) : null}
          </G>
        ))}
      </Svg>
    </View>
  );
}
