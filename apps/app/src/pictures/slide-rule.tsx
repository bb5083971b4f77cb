import type { Rotation } from '@yosoku/core/crank/equal-heights';
import { type WheelRing, readingAt } from '@yosoku/core/crank/wheel';
import { decimal } from '@yosoku/core/units/decimal';
import { useRef, useState } from 'react';
import { type PointerEvent, View } from 'react-native';
import Svg, { Line, Path, Text as SvgText } from 'react-native-svg';
import { useTheme } from '@/ui/theme';
import { runningSign } from './ring-face';
import { useSwing } from './swing';

interface SlideRuleProps {
  readonly ring: WheelRing;
  readonly rotation: Rotation;
  readonly position: number;
  readonly width: number;
  readonly onTurn: (position: number) => void;
}

const HEIGHT = 54;
const PER_DEGREE = 17;
const STEP = 0.25;

/** The ring seen close up, running the way it runs under the pointer. Dragged to fine-tune. */
export function SlideRule({ ring, rotation, position, width, onTurn }: SlideRuleProps) {
  const theme = useTheme();
  const sign = runningSign(rotation);
  const [held, setHeld] = useState(false);
  const grip = useRef({ x: 0, position: 0 });
  const shown = useSwing(position, held);
  const reach = Math.ceil(width / 2 / PER_DEGREE) + 1;
  const first = Math.ceil(shown - reach);
  const degrees = Array.from({ length: 2 * reach + 1 }, (_, i) => first + i);

  const move = ({ nativeEvent }: PointerEvent): void => {
    if (!held) return;
    const by = (nativeEvent.clientX - grip.current.x) / PER_DEGREE;
    onTurn(Math.round((grip.current.position + sign * by) / STEP) * STEP);
  };

  return (
    <View
      aria-hidden
      style={[{ width, height: HEIGHT, overflow: 'hidden' }, { touchAction: 'none', userSelect: 'none' } as object]}
      className="bg-raised"
      onPointerDown={({ nativeEvent }) => {
        grip.current = { x: nativeEvent.clientX, position };
        setHeld(true);
      }}
      onPointerMove={move}
      onPointerUp={() => setHeld(false)}
      onPointerLeave={() => setHeld(false)}
    >
      <Svg width={width} height={HEIGHT}>
        {degrees.flatMap((degree) => {
          const x = width / 2 - sign * (degree - shown) * PER_DEGREE;
          const half = x - (sign * PER_DEGREE) / 2;
          const whole = ruleLabel(ring, degree);
          const tall = degree % 10 === 0 ? 20 : degree % 5 === 0 ? 15 : 10;
          return [
            <Line key={`h${degree}`} x1={half} x2={half} y1="0" y2="6" stroke={theme.line} strokeWidth="1" />,
            <Line key={`l${degree}`} x1={x} x2={x} y1="0" y2={tall} stroke={theme.ink} strokeWidth="1.4" />,
            degree % 5 === 0 ? (
              <SvgText
                key={`t${degree}`}
                x={x}
                y="41"
                textAnchor="middle"
                fontFamily="Barlow_600SemiBold"
                fontSize="18"
                fill={theme.ink}
              >
                {whole}
              </SvgText>
            ) : null,
          ];
        })}
        <Line x1={width / 2} x2={width / 2} y1="0" y2="24" stroke={theme.brass} strokeWidth="3" />
        <Path d={`M${width / 2 - 8} ${HEIGHT} h16 l-8 -8 Z`} fill={theme.brass} />
      </Svg>
    </View>
  );
}

/** What the rule says at a degree: the wheel's own number, or the distance on the tape. */
function ruleLabel(ring: WheelRing, degree: number): string {
  const { shows } = readingAt(ring, degree);
  if (ring.ring !== 'rim') return String(shows);
  return ring.unit === 'in' ? decimal(shows / 25.4, 2) : decimal(shows, 0);
}
