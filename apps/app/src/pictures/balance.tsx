import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { useTheme } from '@/ui/theme';

interface BalanceProps {
  /** The cam's advance against the target, crank degrees; negative is late. */
  readonly delta: number;
  /** How well that is known, 95 %, crank degrees; null where nobody can say. */
  readonly expanded: number | null;
  readonly limit: number;
  /** What each way of measuring has by itself, crank degrees. */
  readonly marks: readonly { readonly delta: number; readonly valve: 'intake' | 'exhaust' | 'both' }[];
  readonly width: number;
  readonly description: string;
}

const HEIGHT = 176;
const AXIS = 134;
const BEAM = 108;
const STEPS = [1, 2, 5, 10, 20, 45];
/** Between two figures under the axis. */
const NARROWEST = 26;
const STEEPEST = 9;

/** The verdict as a beam scale: how far from the target, the limit as a band, each measurement's own mark above it. */
export function Balance({ delta, expanded, limit, marks, width, description }: BalanceProps) {
  const theme = useTheme();
  const furthest = Math.max(
    4,
    limit * 1.6,
    ...[delta, ...marks.map((each) => each.delta)].map((each) => Math.abs(each) * 1.25),
  );
  const perDegree = (width / 2 - 26) / furthest;
  const step = STEPS.find((each) => furthest / each <= 5 && each * perDegree >= NARROWEST) ?? 90;
  const x = (degrees: number): number => width / 2 + degrees * perDegree;
  const count = Math.floor(furthest / step);
  const ticks = Array.from({ length: 2 * count + 1 }, (_, i) => (i - count) * step);
  const tilt = Math.max(-1, Math.min(1, delta / furthest)) * STEEPEST;
  const arm = width / 2 - 34;

  return (
    <View testID="balance" role="img" aria-label={description} style={{ width, height: HEIGHT }}>
      <Svg width={width} height={HEIGHT}>
        <Rect x={x(-limit)} y="22" width={x(limit) - x(-limit)} height={AXIS - 22} fill={theme.raised} />
        <Line x1={x(-limit)} x2={x(-limit)} y1="22" y2={AXIS} stroke={theme.line} strokeWidth="1.5" />
        <Line x1={x(limit)} x2={x(limit)} y1="22" y2={AXIS} stroke={theme.line} strokeWidth="1.5" />
        <SvgText x="4" y="14" fontFamily="BarlowSemiCondensed_400Regular" fontSize="15" fill={theme.soft}>
          late
        </SvgText>
        <SvgText
          x={width - 4}
          y="14"
          textAnchor="end"
          fontFamily="BarlowSemiCondensed_400Regular"
          fontSize="15"
          fill={theme.soft}
        >
          early
        </SvgText>
        {marks.map((mark, at) =>
          mark.valve === 'exhaust' ? (
            <Rect
              key={at}
              x={x(mark.delta) - 5.5}
              y={30.5 + (at % 4) * 14}
              width="11"
              height="11"
              fill={theme.exhaust}
            />
          ) : (
            <Circle key={at} cx={x(mark.delta)} cy={36 + (at % 4) * 14} r="6" fill={theme.intake} />
          ),
        )}
        <G rotation={tilt} originX={width / 2} originY={BEAM}>
          <Line x1={width / 2 - arm} x2={width / 2 + arm} y1={BEAM} y2={BEAM} stroke={theme.ink} strokeWidth="4" />
        </G>
        <Path
          d={`M${x(delta) - 11} ${BEAM - 30} h22 l-11 19 Z`}
          transform={`translate(0 ${Math.tan((tilt * Math.PI) / 180) * (x(delta) - width / 2)})`}
          fill={theme.brass}
        />
        <Path
          d={`M${width / 2} ${BEAM + 2} l13 ${AXIS - BEAM - 2} h-26 Z`}
          fill={theme.ground}
          stroke={theme.ink}
          strokeWidth="2.5"
        />
        {expanded === null ? null : (
          <Path
            d={`M${x(delta - expanded)} ${AXIS - 13} v8 m0 -4 H${x(delta + expanded)} m0 -4 v8`}
            stroke={theme.brass}
            strokeWidth="2.5"
            fill="none"
          />
        )}
        <Line x1="8" x2={width - 8} y1={AXIS} y2={AXIS} stroke={theme.line} strokeWidth="1.5" />
        {ticks.map((degrees) => (
          <G key={degrees}>
            <Line x1={x(degrees)} x2={x(degrees)} y1={AXIS} y2={AXIS + 8} stroke={theme.ink} strokeWidth="1.5" />
            <SvgText
              x={x(degrees)}
              y={AXIS + 27}
              textAnchor="middle"
              fontFamily="Barlow_500Medium"
              fontSize="15"
              fill={theme.ink}
            >
              {`${Math.abs(degrees)}°`}
            </SvgText>
          </G>
        ))}
      </Svg>
    </View>
  );
}
