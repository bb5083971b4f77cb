import Svg, { Circle, G, Line, Path } from 'react-native-svg';
import { type Lobe, flanksAt, lobeAt } from '@yosoku/core/cam/lobe';
import type { ReadMethodName } from '@yosoku/core/measure/read-methods';
import { useTheme } from '@/ui/theme';

const LOBE: Lobe = { peak: 8, nose: 0, half: 150, power: 3, lean: 0 };
const LEFT = -170;
const WIDTH = 340;
const HEIGHT = 64;
const BASE = 56;

const x = (angle: number): number => ((angle - LEFT) / WIDTH) * 100;
const y = (lift: number): number => BASE - lift * 5.6;
const path = Array.from({ length: 86 }, (_, i) => LEFT + i * 4)
  .map((at, i) => `${i === 0 ? 'M' : 'L'}${x(at).toFixed(1)} ${y(lobeAt(LOBE, at).lift).toFixed(1)}`)
  .join('');

interface Spot {
  readonly angle: number;
  readonly lift: number;
}

const at = (lift: number, side: 'opening' | 'closing'): Spot => ({ angle: flanksAt(LOBE, lift)?.[side] ?? 0, lift });

/** Where on the lobe each method reads. */
const SPOTS: Readonly<Record<ReadMethodName, readonly Spot[]>> = {
  centreline: [at(6.6, 'opening'), at(6.6, 'closing')],
  events: [at(1.1, 'opening'), at(1.1, 'closing')],
  'opening-only': [at(1.1, 'opening')],
  'by-feel': [at(0.15, 'opening'), at(0.15, 'closing')],
  'lift-at-tdc': [at(2.4, 'opening')],
  identity: [{ angle: 0, lift: 8 }],
  trace: Array.from({ length: 15 }, (_, i) => -140 + i * 20).map((angle) => ({
    angle,
    lift: lobeAt(LOBE, angle).lift,
  })),
  backlash: [at(3, 'opening')],
};

/** A lobe with the places that a method reads. `next` is the one to be read now. */
export function ReadSketch({
  method,
  width,
  next,
}: {
  readonly method: ReadMethodName;
  readonly width: number;
  readonly next?: number;
}) {
  const theme = useTheme();
  const spots = SPOTS[method];
  const [first] = spots;
  // Large, the same lines would be beams.
  const fine = Math.min(1, 150 / width);
  return (
    <Svg width={width} height={(width * HEIGHT) / 100} viewBox={`0 0 100 ${HEIGHT}`} aria-hidden>
      <Line x1="0" x2="100" y1={BASE} y2={BASE} stroke={theme.hairline} strokeWidth={1 * fine} />
      {method === 'lift-at-tdc' && first ? (
        <Line
          x1={x(first.angle)}
          x2={x(first.angle)}
          y1="4"
          y2={BASE + 6}
          stroke={theme.brass}
          strokeWidth={1.5 * fine}
          strokeDasharray="4 2 1 2"
        />
      ) : null}
      {method === 'identity' ? (
        <Line x1={x(0)} x2={x(0)} y1={y(8)} y2={BASE} stroke={theme.soft} strokeWidth={1.2 * fine} />
      ) : null}
      {(method === 'centreline' || method === 'events') && first ? (
        <Line
          x1={x(first.angle)}
          x2={x(-first.angle)}
          y1={y(first.lift)}
          y2={y(first.lift)}
          stroke={theme.soft}
          strokeWidth={1.2 * fine}
        />
      ) : null}
      {method === 'backlash' && first ? (
        <G stroke={theme.soft} strokeWidth={1.4 * fine} fill="none">
          <Path d={`M${x(first.angle) - 24} ${y(first.lift)} h18 m-5 -4 l5 4 l-5 4`} />
          <Path d={`M${x(first.angle) + 24} ${y(first.lift)} h-18 m5 -4 l-5 4 l5 4`} />
        </G>
      ) : null}
      <Path d={path} fill="none" stroke={theme.ink} strokeWidth={1.8 * fine} />
      {spots.map((spot, i) => (
        <Circle
          key={i}
          cx={x(spot.angle)}
          cy={y(spot.lift)}
          r={(spots.length > 4 ? 2.4 : 4) * fine}
          fill={next === undefined || next === i ? theme.brass : theme.ground}
          stroke={theme.brass}
          strokeWidth={1.6 * fine}
        />
      ))}
    </Svg>
  );
}
