import { View } from 'react-native';
import Svg, { G, Line, Path, Text as SvgText } from 'react-native-svg';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { useTheme } from '@/ui/theme';

interface ShiftRuleProps {
  readonly testID: string;
  readonly label: string;
  /** Crank degrees of advance, negative retards. */
  readonly value: number;
  readonly onChange: (value: number) => void;
  readonly width: number;
  readonly colour: string;
}

/** How far a cam is tried each way, crank degrees. */
const FURTHEST = 12;
const STEP = 0.5;
const HEIGHT = 62;
const LINE = 34;
const SIDE = 22;

/** `shiftWords(2.5)` is "2.5° advanced". */
export const shiftWords = (by: number): string =>
  by === 0 ? 'as it stands' : `${computedDegrees(Math.abs(by))} ${by > 0 ? 'advanced' : 'retarded'}`;

const KEYS: Readonly<Record<string, number>> = {
  ArrowLeft: -STEP,
  ArrowDown: -STEP,
  ArrowRight: STEP,
  ArrowUp: STEP,
  PageDown: -4 * STEP,
  PageUp: 4 * STEP,
};

/** A rule on which a cam is moved: dragged, or by arrow keys, half a degree at a time. */
export function ShiftRule({ testID, label, value, onChange, width, colour }: ShiftRuleProps) {
  const theme = useTheme();
  const perDegree = (width - 2 * SIDE) / (2 * FURTHEST);
  const x = (degrees: number): number => width / 2 + degrees * perDegree;
  const put = (degrees: number): void =>
    onChange(Math.max(-FURTHEST, Math.min(FURTHEST, Math.round(degrees / STEP) * STEP)));
  const at = (event: { readonly nativeEvent: { readonly offsetX: number } }): void =>
    put((event.nativeEvent.offsetX - width / 2) / perDegree);
  const keys = {
    onKeyDown: (event: { readonly key: string; readonly preventDefault: () => void }) => {
      const by = event.key === 'Home' ? -value : KEYS[event.key];
      if (by === undefined) return;
      event.preventDefault();
      put(value + by);
    },
  };
  return (
    <View
      testID={testID}
      role="slider"
      tabIndex={0}
      aria-label={`${label}. Arrow keys move it by half a degree, Home puts it back.`}
      aria-valuemin={-FURTHEST}
      aria-valuemax={FURTHEST}
      aria-valuenow={value}
      aria-valuetext={shiftWords(value)}
      style={{ width, height: HEIGHT, touchAction: 'pan-y' } as object}
      onPointerDown={at}
      onPointerMove={(event) => {
        if (event.nativeEvent.buttons === 1) at(event);
      }}
      {...keys}
    >
      <Svg width={width} height={HEIGHT} style={{ pointerEvents: 'none' }}>
        <Line x1={x(-FURTHEST)} x2={x(FURTHEST)} y1={LINE} y2={LINE} stroke={theme.line} strokeWidth="1.5" />
        {Array.from({ length: 2 * FURTHEST + 1 }, (_, i) => i - FURTHEST).map((degrees) => (
          <G key={degrees}>
            <Line
              x1={x(degrees)}
              x2={x(degrees)}
              y1={LINE}
              y2={LINE + (degrees % 4 === 0 ? 10 : 5)}
              stroke={theme.ink}
              strokeWidth={degrees === 0 ? 2 : 1}
            />
            {degrees % 4 === 0 ? (
              <SvgText
                x={x(degrees)}
                y={LINE + 25}
                textAnchor="middle"
                fontFamily="Barlow_500Medium"
                fontSize="14"
                fill={theme.soft}
              >
                {`${Math.abs(degrees)}`}
              </SvgText>
            ) : null}
          </G>
        ))}
        <Line x1={x(0)} x2={x(value)} y1={LINE} y2={LINE} stroke={colour} strokeWidth="5" />
        <Path d={`M${x(value)} ${LINE - 2} l-11 -20 h22 Z`} fill={theme.brass} />
      </Svg>
    </View>
  );
}
