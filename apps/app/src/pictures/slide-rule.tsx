import { MM_PER_INCH } from '@yosoku/core/units/length';
import type { Rotation } from '@yosoku/core/crank/rotation';
import { rimDegrees } from '@yosoku/core/crank/rim';
import { type WheelRing, readingAt } from '@yosoku/core/crank/wheel';
import { decimal } from '@yosoku/core/units/decimal';
import { memo, useRef } from 'react';
import { Animated, View } from 'react-native';
import Svg, { Line, Path, Text as SvgText } from 'react-native-svg';
import { type Palette, useTheme } from '@/ui/theme';
import { runningSign } from '@yosoku/core/crank/ring-face';
import { useOwnLayer } from './own-layer';
import { type Turning, asShift } from './turning';
import { GRIP_STYLE, useTurnByHand } from './wheel-drag';

interface SlideRuleProps {
  readonly ring: WheelRing;
  readonly rotation: Rotation;
  readonly position: number;
  readonly turning: Turning;
  readonly width: number;
  readonly onTurn: (position: number) => void;
}

const HEIGHT = 54;
const PER_DEGREE = 17;

/** The ring seen close up, running the way it runs under the pointer. Dragged to fine-tune. */
export function SlideRule({ ring, rotation, position, turning, width, onTurn }: SlideRuleProps) {
  const theme = useTheme();
  const sign = runningSign(rotation);
  const hand = useTurnByHand(turning, onTurn);
  const last = useRef(0);
  const middle = width / 2;
  const strip = useOwnLayer(turning);
  return (
    <View
      aria-hidden
      style={[{ width, height: HEIGHT, overflow: 'hidden' }, GRIP_STYLE]}
      className="bg-raised"
      onPointerDown={({ nativeEvent }) => {
        last.current = nativeEvent.clientX;
        hand.grab(position);
      }}
      onPointerMove={({ nativeEvent }) => {
        hand.turnBy((sign * (nativeEvent.clientX - last.current)) / PER_DEGREE);
        last.current = nativeEvent.clientX;
      }}
      onPointerUp={hand.release}
      onPointerLeave={hand.release}
      onPointerCancel={hand.release}
    >
      <Animated.View
        ref={strip}
        style={{
          position: 'absolute',
          left: middle,
          top: 0,
          pointerEvents: 'none',
          transform: [{ translateX: asShift(turning, sign * PER_DEGREE) }],
        }}
      >
        <Strip ring={ring} sign={sign} reach={Math.ceil(middle / PER_DEGREE) + 1} theme={theme} />
      </Animated.View>
      <Svg width={width} height={HEIGHT} style={{ pointerEvents: 'none' }}>
        <Line x1={middle} x2={middle} y1="0" y2="24" stroke={theme.brass} strokeWidth="3" />
        <Path d={`M${middle - 8} ${HEIGHT} h16 l-8 -8 Z`} fill={theme.brass} />
      </Svg>
    </View>
  );
}

interface StripProps {
  readonly ring: WheelRing;
  readonly sign: 1 | -1;
  readonly reach: number;
  readonly theme: Palette;
}

/** One whole turn of the ring and a little more at both ends, drawn once; ring position 0 lies at the left edge of its parent. */
const Strip = memo(function Strip({ ring, sign, reach, theme }: StripProps) {
  const span = (360 + reach) * PER_DEGREE;
  const xOf = (degree: number): number => span - sign * degree * PER_DEGREE;
  const { step, per, labelled } = divisionsOf(ring);
  const lines = linesOf(ring, step, reach);
  const tall = (line: number): number => (line % per === 0 ? 20 : line % labelled === 0 ? 15 : 10);
  const whole = lines.map(({ at, line }) => `M${xOf(at)} 0V${tall(line)}`).join('');
  const half = lines.map(({ at }) => `M${xOf(at + step / 2)} 0V6`).join('');
  return (
    <Svg width={2 * span} height={HEIGHT} style={{ marginLeft: -span }}>
      <Path d={half} stroke={theme.line} strokeWidth="1" />
      <Path d={whole} stroke={theme.ink} strokeWidth="1.4" />
      {lines
        .filter(({ line }) => line % labelled === 0)
        .map(({ at }) => (
          <SvgText
            key={at}
            x={xOf(at)}
            y="41"
            textAnchor="middle"
            fontFamily="Barlow_600SemiBold"
            fontSize="18"
            fill={theme.ink}
          >
            {ruleLabel(ring, at)}
          </SvgText>
        ))}
    </Svg>
  );
});

/**
 * Lines of the rule: `step` crank degrees from one to the next, a number at every `labelled`-th, the tallest at every `per`-th.
 * A wheel has its degrees; a tape its sixteenths of an inch or its millimetres.
 */
function divisionsOf(ring: WheelRing): { readonly step: number; readonly per: number; readonly labelled: number } {
  if (ring.ring !== 'rim') return { step: 1, per: 10, labelled: 5 };
  return ring.unit === 'in'
    ? { step: rimDegrees(MM_PER_INCH / 16, ring.round), per: 16, labelled: 8 }
    : { step: rimDegrees(1, ring.round), per: 10, labelled: 10 };
}

/**
 * Where the lines stand, crank degrees, each with its number. A wheel's run all round; a tape's are counted from the mark, both ways, and
 * those of the two sides do not meet half-way.
 */
function linesOf(
  ring: WheelRing,
  step: number,
  reach: number,
): readonly { readonly at: number; readonly line: number }[] {
  const row = (from: number, to: number, mark: number) =>
    Array.from(
      { length: Math.floor(to / step) - Math.ceil(from / step) + 1 },
      (_, i) => i + Math.ceil(from / step),
    ).map((line) => ({ at: mark + line * step, line }));
  return ring.ring === 'rim' ? [...row(-reach, 180, 0), ...row(-180, reach, 360)] : row(-reach, 360 + reach, 0);
}

/** What the rule says at a degree: the wheel's own number, or the distance on the tape. */
function ruleLabel(ring: WheelRing, degree: number): string {
  const { shows } = readingAt(ring, degree);
  if (ring.ring !== 'rim') return String(shows);
  return ring.unit === 'in' ? decimal(shows / MM_PER_INCH, 1) : decimal(shows, 0);
}
