import { View } from 'react-native';
import Svg, { Circle, G, Line, Rect, Text as SvgText } from 'react-native-svg';
import type { Report } from '@yosoku/core/report/report';
import { decimal } from '@yosoku/core/units/decimal';
import { type LengthUnit, MM_PER_INCH, formatComputedLength } from '@yosoku/core/units/length';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';

type Table = Report['trials'][number]['everyLobe'][number];

interface LobeStripProps {
  readonly table: Table;
  readonly units: LengthUnit;
  readonly width: number;
}

const HEIGHT = 104;
const TOP = 12;
const FOOT = 22;
const SIDE = 54;
/** Less than this is drawn at no larger scale, mm: the lobes of a sound cam shall look alike. */
const LEAST_SCALE = 0.1;

/** Lifts of one kind of lobe beside each other: how far each lies from the middle of all, and what it may err by. */
export function LobeStrip({ table, units, width }: LobeStripProps) {
  const theme = useTheme();
  const colour = theme[table.valve];
  const lifts = table.rows.flatMap(({ cylinder, lift }) => (lift ? [{ cylinder, ...lift }] : []));
  const reach = Math.max(LEAST_SCALE, ...lifts.map(({ apart, expanded }) => Math.abs(apart) + expanded));
  const half = (HEIGHT - TOP - FOOT) / 2;
  const y = (apart: number): number => TOP + half - (apart / reach) * half;
  const each = (width - SIDE) / lifts.length;
  const x = (place: number): number => SIDE + each * (place + 0.5);
  const name = `${table.valve === 'intake' ? 'Intake' : 'Exhaust'} ${table.at === 'valve' ? 'valves' : 'lobes'}`;
  return (
    <View
      role="img"
      testID={`lobe-strip-${table.valve}`}
      aria-label={`${name}: ${lifts.map(({ cylinder, shows }) => `cylinder ${cylinder} ${shows}`).join(', ')}`}
    >
      <Words look="label" tone={table.valve} aria-hidden>
        {`${name}, from the middle of all${table.usual === null ? '' : `, ${formatComputedLength(table.usual, units)}`}`}
      </Words>
      <Svg width={width} height={HEIGHT} aria-hidden>
        <Line x1={SIDE} x2={width} y1={y(0)} y2={y(0)} stroke={theme.line} strokeWidth={1} />
        {[reach, -reach].map((at) => (
          <SvgText
            key={at}
            x={0}
            y={y(at) + 5}
            fontSize={13}
            fontFamily="BarlowSemiCondensed_400Regular"
            fill={theme.soft}
          >
            {`${at > 0 ? '+' : '−'}${units === 'in' ? decimal(reach / MM_PER_INCH, 3) : decimal(reach, 2)}`}
          </SvgText>
        ))}
        {lifts.map(({ cylinder, apart, expanded, state }, place) => (
          <G key={cylinder}>
            <Line
              x1={x(place)}
              x2={x(place)}
              y1={y(apart - expanded)}
              y2={y(apart + expanded)}
              stroke={state === 'differs' ? theme.danger : theme.line}
              strokeWidth={2}
            />
            {state === 'differs' ? (
              <Rect x={x(place) - 6} y={y(apart) - 6} width={12} height={12} fill={theme.danger} />
            ) : (
              <Circle
                cx={x(place)}
                cy={y(apart)}
                r={6}
                fill={state === 'perhaps' ? theme.ground : colour}
                stroke={colour}
                strokeWidth={2}
              />
            )}
            <SvgText
              x={x(place)}
              y={HEIGHT - 4}
              fontSize={14}
              fontFamily="BarlowSemiCondensed_400Regular"
              textAnchor="middle"
              fill={theme.ink}
            >
              {cylinder}
            </SvgText>
          </G>
        ))}
      </Svg>
    </View>
  );
}
