import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import type { CheckName } from '@yosoku/core/prepare/checks';
import type { SignCheckName } from '@yosoku/core/sign/sign-checks';
import { useTheme } from '@/ui/theme';

/** The engine in ink, what is looked at in brass; paths in a square of 64. */
interface Sketch {
  readonly ink: string;
  readonly brass: string;
  /** Parts that are solid. */
  readonly solid?: string;
}

const circle = (x: number, y: number, r: number): string =>
  `M${x - r} ${y}A${r} ${r} 0 1 1 ${x + r} ${y}A${r} ${r} 0 1 1 ${x - r} ${y}`;
/** Lines outward from a circle, at these degrees from the top. */
const teeth = (x: number, y: number, from: number, to: number, at: readonly number[]): string =>
  at
    .map((degrees) => {
      const [sin, cos] = [Math.sin((degrees * Math.PI) / 180), -Math.cos((degrees * Math.PI) / 180)];
      return `M${(x + from * sin).toFixed(1)} ${(y + from * cos).toFixed(1)}L${(x + to * sin).toFixed(1)} ${(y + to * cos).toFixed(1)}`;
    })
    .join('');
const every = (step: number, from = 0, to = 360): number[] =>
  Array.from({ length: Math.floor((to - from) / step) }, (_, at) => from + at * step);

const HEX = 'M32 23L40 27.5V36.5L32 41L24 36.5V27.5Z';
const VALVE = 'M32 8V40M16 46Q32 34 48 46Z';
const PISTON = 'M12 56H52M12 56V63M52 56V63';
const CRANK = `${circle(32, 32, 9)}M32 32V26`;
const TWO_TURNS = 'M32 8A24 24 0 1 1 8 32M8 32L3 24M8 32L15 26M32 15A17 17 0 1 1 15 36';
const TRIGGER_WHEEL = `${circle(28, 34, 17)}${teeth(28, 34, 17, 23, [...every(24, 72, 350), 0])}`;
const PICKUP = 'M50 8H60V20H50ZM55 20V24';

const SKETCHES: Readonly<Record<CheckName | SignCheckName, Sketch>> = {
  'made-safe': {
    ink: 'M8 28H46V54H8ZM15 28V22H23V28M31 28V22H39V28M16 41H24M20 37V45M32 41H40',
    brass: 'M35 14Q44 2 60 12M50 34L60 44M60 34L50 44',
  },
  'turns-freely': { ink: CRANK, brass: TWO_TURNS },
  'wheel-tight': { ink: `${circle(32, 32, 26)}${teeth(32, 32, 21, 26, every(15))}`, brass: HEX },
  'pointer-rigid': {
    ink: `M6 60A28 28 0 0 1 58 60${teeth(32, 60, 23, 28, every(15, -75, 90))}`,
    brass: 'M32 30V16Q32 9 39 9H54M54 3V15',
  },
  'turn-from-crank': {
    ink: `${circle(28, 38, 22)}${circle(28, 38, 7)}`,
    brass: 'M32 33L60 5M56 4L62 8',
  },
  'one-way-tensioner': {
    ink: `${circle(32, 16, 12)}${circle(32, 52, 7)}M20 18L25 50M44 18L39 50`,
    brass: 'M62 34H46L41 30M52 28L56 34M57 28L61 34M8 24V44M8 44L3 37M8 44L13 37',
  },
  'lifter-solid': { ink: 'M22 8H42V50H22ZM16 56Q32 48 48 56', brass: '', solid: 'M26 16H38V44H26Z' },
  'roller-follows': {
    ink: 'M14 54A18 18 0 1 0 50 54Q44 40 32 36Q20 40 14 54',
    brass: `${circle(32, 27, 8)}M32 3V14M27 10L32 15L37 10`,
  },
  'checking-springs': {
    ink: 'M32 4V54M18 62Q32 50 46 62Z',
    brass: 'M22 12L42 17L22 22L42 27L22 32L42 37L22 42M20 8H44',
  },
  'ratio-known': {
    ink: 'M10 34V60M54 28V60M30 44L24 58H36ZM48 60H60',
    brass: 'M8 32L30 40L56 24M30 20V14M24 14H36',
  },
  'indicator-in-line': {
    ink: 'M8 58H56',
    brass: `${circle(32, 16, 12)}M32 16L39 11M32 28V58M32 50H40V58`,
  },
  'end-play': {
    ink: 'M14 26H50V38H14ZM20 26Q25 16 30 26M36 38Q41 48 46 38',
    brass: 'M2 32H10M2 32L6 28M2 32L6 36M62 32H54M62 32L58 28M62 32L58 36',
  },
  'straight-up': {
    ink: `${circle(32, 20, 16)}${circle(32, 52, 8)}`,
    brass: 'M32 0V64',
    solid: `${circle(32, 32, 2.6)}${circle(32, 48, 2.6)}`,
  },
  'trigger-pattern': { ink: TRIGGER_WHEEL, brass: PICKUP },
  'bolt-length': {
    ink: 'M10 24H22V58H42V24H54',
    brass: 'M24 6H40V14H24ZM27 14V46H37V14M28 52H36',
  },
  fasteners: { ink: HEX, brass: 'M10 42A26 26 0 1 1 54 46M54 46L60 38M54 46L46 42' },
  locking: { ink: `${HEX}M14 48H50`, brass: 'M40 48V40L46 34M20 48L24 40' },
  trigger: { ink: TRIGGER_WHEEL, brass: PICKUP },
  'tools-out': {
    ink: 'M6 44H24M40 44H58M24 44V58M40 44V58',
    brass: 'M24 22H40M32 22V48M32 16V2M26 8L32 2L38 8',
  },
  'turned-over': { ink: CRANK, brass: TWO_TURNS },
  clearance: { ink: `${VALVE}${PISTON}`, brass: 'M56 46V56M52 46H60M52 56H60' },
  lash: { ink: 'M6 18Q30 8 50 22V28M50 34V60M42 60H58', brass: 'M62 31H20' },
};

/** What a check looks at, drawn. Its title says the same: whoever hears the page is told nothing twice. */
export function CheckSketch({ check, size }: { readonly check: CheckName | SignCheckName; readonly size: number }) {
  const theme = useTheme();
  const { ink, brass, solid } = SKETCHES[check];
  return (
    <View aria-hidden testID={`sketch-${check}`}>
      <Svg width={size} height={size} viewBox="0 0 64 64">
        <Path d={ink} fill="none" stroke={theme.ink} strokeWidth="2" strokeLinejoin="round" />
        <Path d={brass} fill="none" stroke={theme.brass} strokeWidth="3" strokeLinejoin="round" strokeLinecap="round" />
        {solid ? <Path d={solid} fill={theme.brass} /> : null}
      </Svg>
    </View>
  );
}
