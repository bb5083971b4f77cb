import type { ReactElement } from 'react';
import Svg, { Circle, G, Line, Path } from 'react-native-svg';
import { type Lobe, flanksAt, lobeAt } from '@yosoku/core/cam/lobe';
import type { ReadMethodName } from '@yosoku/core/measure/read-methods';
import { type Palette, useTheme } from '@/ui/theme';

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

interface Sketch {
  /** Where on the lobe the method reads. */
  readonly spots: readonly Spot[];
  /** What else is drawn, behind the lobe. `fine` thins its lines where the sketch is large. */
  readonly lines?: (theme: Palette, fine: number) => ReactElement;
}

/** A pair of places at one height, joined by a line. */
const levelPair = (lift: number): Sketch => ({
  spots: [at(lift, 'opening'), at(lift, 'closing')],
  lines: (theme, fine) => (
    <Line
      x1={x(at(lift, 'opening').angle)}
      x2={x(-at(lift, 'opening').angle)}
      y1={y(lift)}
      y2={y(lift)}
      stroke={theme.soft}
      strokeWidth={1.2 * fine}
    />
  ),
});

const ON_THE_FLANK = at(3, 'opening');
const AT_TDC = at(2.4, 'opening');

const SKETCHES: Readonly<Record<ReadMethodName, Sketch>> = {
  centreline: levelPair(6.6),
  events: levelPair(1.1),
  'opening-only': { spots: [at(1.1, 'opening')] },
  'by-feel': { spots: [at(0.15, 'opening'), at(0.15, 'closing')] },
  'lift-at-tdc': {
    spots: [AT_TDC],
    lines: (theme, fine) => (
      <Line
        x1={x(AT_TDC.angle)}
        x2={x(AT_TDC.angle)}
        y1="4"
        y2={BASE + 6}
        stroke={theme.brass}
        strokeWidth={1.5 * fine}
        strokeDasharray="4 2 1 2"
      />
    ),
  },
  identity: {
    spots: [{ angle: 0, lift: 8 }],
    lines: (theme, fine) => (
      <Line x1={x(0)} x2={x(0)} y1={y(8)} y2={BASE} stroke={theme.soft} strokeWidth={1.2 * fine} />
    ),
  },
  trace: {
    spots: Array.from({ length: 15 }, (_, i) => -140 + i * 20).map((angle) => ({
      angle,
      lift: lobeAt(LOBE, angle).lift,
    })),
  },
  backlash: {
    spots: [ON_THE_FLANK],
    lines: (theme, fine) => (
      <G stroke={theme.soft} strokeWidth={1.4 * fine} fill="none">
        <Path d={`M${x(ON_THE_FLANK.angle) - 24} ${y(ON_THE_FLANK.lift)} h18 m-5 -4 l5 4 l-5 4`} />
        <Path d={`M${x(ON_THE_FLANK.angle) + 24} ${y(ON_THE_FLANK.lift)} h-18 m5 -4 l-5 4 l5 4`} />
      </G>
    ),
  },
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
  const { spots, lines } = SKETCHES[method];
  // Large, the same lines would be beams.
  const fine = Math.min(1, 150 / width);
  return (
    <Svg width={width} height={(width * HEIGHT) / 100} viewBox={`0 0 100 ${HEIGHT}`} aria-hidden>
      <Line x1="0" x2="100" y1={BASE} y2={BASE} stroke={theme.hairline} strokeWidth={1 * fine} />
      {lines?.(theme, fine)}
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
