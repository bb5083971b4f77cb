import type { ReactNode } from 'react';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect } from 'react-native-svg';
import { ZERO_METHODS, type ZeroMethodName } from '@yosoku/core/tdc/zero-methods';
import { type Palette, useTheme } from '@/ui/theme';

/** Where the piston's crown stands in the sketch: under the tool that meets it. */
const CROWN = 66;

/** What stands on or in the cylinder for a method of finding TDC, in section. */
export function MethodSketch({ method, size }: { readonly method: ZeroMethodName; readonly size: number }) {
  const theme = useTheme();
  const tool = TOOLS[method];
  const headOn = ZERO_METHODS[method].needs.head === 'on';
  return (
    <View role="img" aria-label={`Sketch: ${ZERO_METHODS[method].name}`}>
      <Svg width={size} height={size} viewBox="0 0 120 120">
        {tool ? <Cylinder theme={theme} head={headOn} tool={tool(theme)} /> : <Rim theme={theme} />}
      </Svg>
    </View>
  );
}

function Cylinder({ theme, head, tool }: { theme: Palette; head: boolean; tool: ReactNode }) {
  return (
    <>
      <Path d="M26 38V108M94 38V108" stroke={theme.ink} strokeWidth="3" />
      <Path d="M8 38H26M94 38H112" stroke={theme.ink} strokeWidth="3" />
      {head ? (
        <Path
          d="M8 34V22H50M70 22H112V34H94L84 26H70M50 26H36L26 34H8"
          fill="none"
          stroke={theme.ink}
          strokeWidth="2"
        />
      ) : null}
      <Path d={`M28 ${CROWN}H92V${CROWN + 30}H28Z`} fill={theme.raised} stroke={theme.ink} strokeWidth="2" />
      <Path d={`M28 ${CROWN + 6}H92M28 ${CROWN + 11}H92`} stroke={theme.line} strokeWidth="1.5" />
      <Circle cx="60" cy={CROWN + 20} r="6" fill={theme.ground} stroke={theme.ink} strokeWidth="2" />
      <Path d={`M55 ${CROWN + 25}L50 118M65 ${CROWN + 25}L70 118`} stroke={theme.ink} strokeWidth="2" />
      {tool}
    </>
  );
}

/** A bar bolted over the bore, with a screw that the piston meets. */
const bar = (theme: Palette): ReactNode => (
  <G>
    <Rect x="10" y="28" width="100" height="9" fill={theme.brass} />
    <Path d="M18 22V42M102 22V42" stroke={theme.brass} strokeWidth="4" />
    <Path d={`M60 20V${CROWN - 1}`} stroke={theme.brass} strokeWidth="7" />
  </G>
);

/** A screw through the plug hole. */
const screw = (theme: Palette): ReactNode => (
  <G>
    <Rect x="50" y="10" width="20" height="8" fill={theme.brass} />
    <Path d={`M60 18V${CROWN - 1}`} stroke={theme.brass} strokeWidth="8" />
  </G>
);

/** An indicator whose tip stands on what it measures. */
const indicator = (theme: Palette, tip: number, turns: string): ReactNode => (
  <G>
    <Path d={`M60 26V${tip}`} stroke={theme.brass} strokeWidth="3" />
    <Circle cx="60" cy="15" r="13" fill={theme.ground} stroke={theme.brass} strokeWidth="3" />
    <Path d={turns} stroke={theme.brass} strokeWidth="2" fill="none" />
  </G>
);

/** A valve whose head stands on the piston. */
const valve = (theme: Palette): ReactNode => (
  <Path
    d={`M60 34V${CROWN - 6}M44 ${CROWN - 1}Q60 ${CROWN - 12} 76 ${CROWN - 1}Z`}
    fill={theme.brass}
    stroke={theme.brass}
    strokeWidth="4"
  />
);

/** What stands in the cylinder; null where the work is done at the rim. */
const TOOLS: Readonly<Record<ZeroMethodName, ((theme: Palette) => ReactNode) | null>> = {
  'rim-marks': null,
  'positive-stop': bar,
  'plug-stop': screw,
  'stop-zeroed': (theme) => (
    <G>
      {screw(theme)}
      <Path d="M96 12A14 14 0 1 1 95.9 12M96 8V20" fill="none" stroke={theme.brass} strokeWidth="2.5" />
    </G>
  ),
  'equal-drop': (theme) => (
    <G>
      {indicator(theme, CROWN, 'M60 15L67 9')}
      <Path
        d={`M98 ${CROWN - 18}V${CROWN}M94 ${CROWN - 18}H108M94 ${CROWN}H108`}
        stroke={theme.brass}
        strokeWidth="1.5"
      />
    </G>
  ),
  'dropped-valve': (theme) => (
    <G>
      {indicator(theme, 34, 'M60 15L67 9')}
      {valve(theme)}
    </G>
  ),
  'pushed-valve': (theme) => (
    <G>
      {valve(theme)}
      <Path d="M60 30V22M48 22H72V14H48Z" fill={theme.brass} stroke={theme.brass} strokeWidth="3" />
      <Path d="M84 8V26M78 20L84 28L90 20" fill="none" stroke={theme.brass} strokeWidth="2.5" />
    </G>
  ),
  'soft-stop': (theme) => (
    <Path
      d={`M58 2Q66 14 60 26Q54 40 62 ${CROWN - 8}L56 ${CROWN}`}
      fill="none"
      stroke={theme.brass}
      strokeWidth="5"
      strokeLinecap="round"
    />
  ),
  'first-stop': (theme) => indicator(theme, CROWN, 'M60 15V6'),
  'locking-pin': (theme) => (
    <Path d="M104 92H72M78 86V98M104 84V100" fill="none" stroke={theme.brass} strokeWidth="5" />
  ),
};

/** The rim of a balancer with its two marks, the tape between them, and the mark half-way. */
function Rim({ theme }: { theme: Palette }) {
  return (
    <>
      <Circle cx="60" cy="68" r="44" fill={theme.raised} stroke={theme.ink} strokeWidth="3" />
      <Circle cx="60" cy="68" r="10" fill={theme.ground} stroke={theme.ink} strokeWidth="2" />
      <Path d="M34 22A52 52 0 0 1 86 22" fill="none" stroke={theme.brass} strokeWidth="3" />
      <Line x1="38" y1="30" x2="44" y2="40" stroke={theme.ink} strokeWidth="4" />
      <Line x1="82" y1="30" x2="76" y2="40" stroke={theme.ink} strokeWidth="4" />
      <Line x1="60" y1="24" x2="60" y2="42" stroke={theme.brass} strokeWidth="4" />
    </>
  );
}
