import { memo, useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Path, Text as SvgText } from 'react-native-svg';
import { polar, stroke } from '@yosoku/core/crank/dial';
import { formatComputedLength } from '@yosoku/core/units/length';
import { type Stand, dialShows } from '@yosoku/core/simulation/whole-engine';
import { type Palette, useTheme } from '@/ui/theme';
import type { LiveEngine } from './live-engine';
import { type Move, MovingLayer } from './moving-layer';
import { useRested } from './use-live-engine';

/** Once round, mm: a hundred thousandths of an inch, or a millimetre. Ten times round is once round the small hand. */
const ONCE = { in: 2.54, mm: 1 } as const;
const SMALL = 10;

interface DialPictureProps {
  readonly live: LiveEngine;
  readonly units: 'in' | 'mm';
  readonly size: number;
}

/** A dial indicator: its needle winds round as what it sits on rises, and waits while the drive's slack goes through. */
export function DialPicture({ live, units, size }: DialPictureProps) {
  const theme = useTheme();
  const stand = useRested(live);
  const follow = useMemo(() => {
    const turns = (now: Stand): number => dialShows(live.engine, now) / ONCE[units];
    return {
      large: (now: Stand): Move => ({ turn: 360 * turns(now) }),
      small: (now: Stand): Move => ({ turn: (360 * turns(now)) / SMALL }),
    };
  }, [live.engine, units]);
  const shows = dialShows(live.engine, stand);
  const where = stand.dial.cylinder === undefined ? '' : ` of cylinder ${stand.dial.cylinder}`;
  const words = `Dial on the ${stand.dial.on}${where}: ${formatComputedLength(shows, units).replace('-', '−')}.`;
  return (
    <View testID="dial" role="img" aria-label={words} style={{ width: size, height: size }}>
      <Face size={size} units={units} theme={theme} />
      <MovingLayer
        testID="needle-small"
        live={live}
        x={size / 2}
        y={size * 0.655}
        width={size * 0.2}
        height={size * 0.2}
        move={follow.small}
      >
        <Svg width="100%" height="100%" viewBox="-12 -12 24 24">
          <Path d="M-1.2 4L0 -9L1.2 4Z" fill={theme.ink} />
        </Svg>
      </MovingLayer>
      <MovingLayer testID="needle" live={live} x={size / 2} y={size / 2} width={size} height={size} move={follow.large}>
        <Svg width={size} height={size} viewBox="-50 -50 100 100">
          <Path d="M-1.6 12L-0.7 -41L0.7 -41L1.6 12Z" fill={theme.brass} />
          <Circle r="3.2" fill={theme.brass} />
        </Svg>
      </MovingLayer>
    </View>
  );
}

const Face = memo(function Face({ size, units, theme }: { size: number; units: 'in' | 'mm'; theme: Palette }) {
  const ticks = (step: number, length: number): string =>
    Array.from({ length: 100 / step }, (_, i) => stroke(47 - length, 47, i * step * 3.6)).join('');
  return (
    <Svg width={size} height={size} viewBox="-50 -50 100 100" style={{ position: 'absolute' }}>
      <Circle r="48.5" fill={theme.raised} stroke={theme.line} strokeWidth="1.5" />
      <Path d={ticks(1, 3.5)} stroke={theme.line} strokeWidth="0.5" />
      <Path d={ticks(5, 5.5)} stroke={theme.soft} strokeWidth="0.8" />
      <Path d={ticks(10, 7)} stroke={theme.ink} strokeWidth="1.1" />
      {Array.from({ length: 10 }, (_, i) => i * 10).map((hundredth) => {
        const [x, y] = polar(34, hundredth * 3.6);
        return (
          <SvgText
            key={hundredth}
            x={x}
            y={y}
            dy={3}
            textAnchor="middle"
            fontFamily="Barlow_600SemiBold"
            fontSize="8.5"
            fill={theme.ink}
          >
            {hundredth}
          </SvgText>
        );
      })}
      <Circle cy="15.5" r="9.5" fill={theme.ground} stroke={theme.line} strokeWidth="0.8" />
      {Array.from({ length: 10 }, (_, i) => (
        <Path key={i} d={stroke(7, 9, i * 36)} stroke={theme.soft} strokeWidth="0.7" transform="translate(0 15.5)" />
      ))}
      <SvgText x="0" y="-19" textAnchor="middle" fontFamily="Barlow_500Medium" fontSize="6" fill={theme.soft}>
        {units === 'in' ? '0.001 in' : '0.01 mm'}
      </SvgText>
    </Svg>
  );
});
