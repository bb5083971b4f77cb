import type { ReactElement } from 'react';
import Svg, { Circle, G, Line, Path } from 'react-native-svg';
import { type Lobe, flanksAt, lobeAt } from '@yosoku/core/cam/lobe';
import {
  type Flank,
  type ReadMethod,
  type ReadMethodName,
  type Slot,
  readMethod,
} from '@yosoku/core/measure/read-methods';
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

const at = (lift: number, side: Flank | null): Spot => ({
  angle: flanksAt(LOBE, lift)?.[side ?? 'opening'] ?? 0,
  lift,
});

const TOP: Spot = { angle: 0, lift: LOBE.peak };
const AT_TDC = at(2.4, 'opening');
/** 0.050 in of a real lobe on this one. */
const HEIGHT_DRAWN = 1.1;
const DROP_DRAWN = 1.4;
const SCARCELY_OPEN = 0.15;

interface Sketch {
  /** Where on the lobe it is read. */
  readonly spots: readonly Spot[];
  /** What else is drawn, behind the lobe. `fine` thins its lines where the sketch is large. */
  readonly lines?: (theme: Palette, fine: number) => ReactElement;
}

/** What is drawn of a reading, by what it shows. `height`: the figure that its method usually goes to, counted in 0.050 in. */
const OF_READING: Readonly<Record<Slot['shows'], (flank: Flank | null, height: number) => Sketch>> = {
  'below-peak': (flank, height) => ({ spots: [at(LOBE.peak - height * DROP_DRAWN, flank)] }),
  'above-base': (flank, height) => ({ spots: [at(height * HEIGHT_DRAWN, flank)] }),
  'by-feel': (flank) => ({ spots: [at(SCARCELY_OPEN, flank)] }),
  'tdc-lift': () => ({
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
  }),
  'peak-lift': () => ({
    spots: [TOP],
    lines: (theme, fine) => (
      <Line x1={x(0)} x2={x(0)} y1={y(TOP.lift)} y2={BASE} stroke={theme.soft} strokeWidth={1.2 * fine} />
    ),
  }),
  'trace-point': () => ({
    spots: Array.from({ length: 15 }, (_, i) => -140 + i * 20).map((angle) => ({
      angle,
      lift: lobeAt(LOBE, angle).lift,
    })),
  }),
};

/** Both flanks at one height. */
const level = (one: Spot, other: Spot): Pick<Sketch, 'lines'> => ({
  lines: (theme, fine) => (
    <Line
      x1={x(one.angle)}
      x2={x(other.angle)}
      y1={y(one.lift)}
      y2={y(other.lift)}
      stroke={theme.soft}
      strokeWidth={1.2 * fine}
    />
  ),
});

/** A place that is come to from both sides. */
const bothWays = ({ angle, lift }: Spot): Pick<Sketch, 'lines'> => ({
  lines: (theme, fine) => (
    <G stroke={theme.soft} strokeWidth={1.4 * fine} fill="none">
      <Path d={`M${x(angle) - 24} ${y(lift)} h18 m-5 -4 l5 4 l-5 4`} />
      <Path d={`M${x(angle) + 24} ${y(lift)} h-18 m5 -4 l-5 4 l5 4`} />
    </G>
  ),
});

/** The sketch of a method follows from its readings: whoever adds a method draws nothing. */
function sketchOf({ slots, height }: ReadMethod): Sketch {
  const figure = height === null ? 0 : Number(height.usual.in) / 0.05;
  const drawn = slots.map(({ shows, flank }) => OF_READING[shows](flank, figure));
  const spots = drawn
    .flatMap((each) => each.spots)
    .filter((spot, i, all) => all.findIndex(({ angle }) => angle === spot.angle) === i);
  const [one, other] = spots;
  const own = drawn.find(({ lines }) => lines);
  if (own || !one || height === null) return { ...own, spots };
  if (slots.some(({ approach }) => approach === 'backward')) return { ...bothWays(one), spots };
  return other ? { ...level(one, other), spots } : { spots };
}

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
  const { spots, lines } = sketchOf(readMethod(method));
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
