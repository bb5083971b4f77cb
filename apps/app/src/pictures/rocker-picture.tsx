import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import type { Valve } from '@yosoku/core/cam/card';
import { useTheme } from '@/ui/theme';

interface RockerPictureProps {
  /** Sines of the arm to the perpendicular of the stem. */
  readonly arm: { readonly closed: number; readonly mid: number; readonly open: number };
  /** Lengths mm. */
  readonly length: number;
  readonly ratio: number;
  readonly lift: number;
  readonly path: number;
  readonly tip: number | null;
  /** Of the middle of the pattern from that of the tip, positive away from the pivot. */
  readonly offset: number;
  readonly valve: Valve;
  readonly width: number;
  /** What the picture shows, in words. */
  readonly description: string;
}

const HEIGHT = 210;
/** The path across the tip is drawn so much larger. */
const LARGER = 10;
const ROLLER = 5;

/** The rocker as it stands: closed, half open and open; and the roller's path across the tip, ten times as large. */
export function RockerPicture({
  arm,
  length,
  ratio,
  lift,
  path,
  tip,
  offset,
  valve,
  width,
  description,
}: RockerPictureProps) {
  const theme = useTheme();
  const scale = Math.min((width * 0.5) / (length * (1 + 1 / ratio)), (HEIGHT - 70) / (2.6 * lift));
  const pivot = { x: 26 + (length / ratio) * scale, y: 84 };
  const roller = (sine: number) => ({
    x: pivot.x + length * Math.sqrt(1 - sine * sine) * scale,
    y: pivot.y + length * sine * scale,
  });
  const cup = (sine: number) => ({
    x: pivot.x - (length / ratio) * Math.sqrt(1 - sine * sine) * scale,
    y: pivot.y - (length / ratio) * sine * scale,
  });
  const colour = theme[valve];
  const places = [
    ['closed', arm.closed, 0.95],
    ['mid', arm.mid, 0.55],
    ['open', arm.open, 0.3],
  ] as const;
  const closed = roller(arm.closed);
  const tall = HEIGHT - 20;
  const tipX = width - 16 - Math.min(width * 0.3, (tip ?? 8) * LARGER);
  const tipWide = width - 16 - tipX;
  const shown = Math.min(tipWide, path * LARGER);
  const room = (tipWide - shown) / 2;
  const aside = Math.max(-room, Math.min(room, offset * LARGER));
  return (
    <View role="img" aria-label={description} testID="rocker-picture">
      <Svg width={width} height={HEIGHT} aria-hidden>
        <Line
          x1={pivot.x - 10}
          x2={pivot.x + length * scale + 12}
          y1={pivot.y}
          y2={pivot.y}
          stroke={theme.line}
          strokeWidth={1}
          strokeDasharray="5 4"
        />
        {places.map(([name, sine, opacity]) => {
          const [a, b] = [cup(sine), roller(sine)];
          return (
            <G key={name} opacity={opacity}>
              <Line x1={a.x} y1={a.y} x2={pivot.x} y2={pivot.y} stroke={theme.ink} strokeWidth={4} />
              <Line x1={pivot.x} y1={pivot.y} x2={b.x} y2={b.y} stroke={theme.ink} strokeWidth={4} />
              <Circle cx={b.x} cy={b.y} r={ROLLER} fill={theme.ground} stroke={theme.ink} strokeWidth={2} />
            </G>
          );
        })}
        <Circle cx={pivot.x} cy={pivot.y} r={6} fill={theme.ink} />
        <Path
          d={`M${closed.x - 7} ${closed.y + 8}H${closed.x + 7}V${tall}H${closed.x - 7}Z`}
          fill="none"
          stroke={colour}
          strokeWidth={2}
        />
        <Line
          x1={cup(arm.closed).x}
          y1={cup(arm.closed).y}
          x2={cup(arm.closed).x - 6}
          y2={tall}
          stroke={theme.line}
          strokeWidth={3}
        />
        <Rect
          x={tipX}
          y={pivot.y - 30}
          width={tipWide}
          height={60}
          fill="none"
          stroke={colour}
          strokeWidth={2}
          rx={valve === 'intake' ? 14 : 2}
        />
        <Rect
          x={tipX + (tipWide - shown) / 2 + aside}
          y={pivot.y - 30}
          width={shown}
          height={60}
          fill={colour}
          opacity={0.55}
        />
        <SvgText x={tipX} y={pivot.y + 52} fontSize={14} fontFamily="BarlowSemiCondensed_400Regular" fill={theme.soft}>
          {`tip × ${LARGER}`}
        </SvgText>
      </Svg>
    </View>
  );
}
