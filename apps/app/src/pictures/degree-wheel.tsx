import { rimDegrees } from '@yosoku/core/crank/rim';
import type { Rotation } from '@yosoku/core/crank/rotation';
import { type WheelRing, ringWords } from '@yosoku/core/crank/wheel';
import { MM_PER_INCH } from '@yosoku/core/units/length';
import { memo, useEffect, useMemo, useState } from 'react';
import { Animated, Text, View } from 'react-native';
import Svg, { Circle, Defs, Line, Path, Pattern, Rect, Text as SvgText } from 'react-native-svg';
import { type Palette, useTheme } from '@/ui/theme';
import { arc, band, polar, stroke } from '@yosoku/core/crank/dial';
import { faceNumbers, runningSign } from '@yosoku/core/crank/ring-face';
import { useOwnLayer } from './own-layer';
import { type Turning, asRotation, useTurning } from './turning';
import { useWheelDrag } from './wheel-drag';

/** Something seen on the wheel at a ring position (crank degrees). Hollow: from the card. Filled: measured. */
export interface WheelMark {
  readonly at: number;
  readonly kind: 'contact' | 'measured' | 'card';
  /** Intake is round, exhaust square; intake unless said. */
  readonly valve?: 'intake' | 'exhaust';
}

interface DegreeWheelProps {
  readonly ring: WheelRing;
  /** Further numbers of the same wheel, shown fainter inside. */
  readonly others?: readonly WheelRing[];
  readonly rotation: Rotation;
  /** Ring position under the pointer, crank degrees. */
  readonly position: number;
  readonly size: number;
  readonly marks?: readonly WheelMark[];
  /** The arc that the piston cannot cross, ring positions, running the way the engine runs. */
  readonly blocked?: { readonly from: number; readonly sweep: number } | null;
  /** Ring position of true TDC, where known. */
  readonly tdc?: number | null;
  readonly turn?: 'forward' | 'backward' | null;
  /** The reading in the middle, and a word under it. */
  readonly figure: string;
  readonly word: string;
  /** What the picture shows, in words. */
  readonly description: string;
  readonly onTurn?: (position: number) => void;
  /** What the wheel follows, where something else follows it too. */
  readonly turning?: Turning;
  /** What stands in the middle while a finger turns the wheel. */
  readonly figureAt?: (position: number) => Figure;
}

interface Figure {
  readonly figure: string;
  readonly word: string;
}

const HALF = 200;
const RIM = 172;
const INNER = 128;
/** What each further row of numbers takes, towards the middle. */
const ROW = 17;

const LAYER = { position: 'absolute', left: 0, top: 0, pointerEvents: 'none' } as const;
const VIEW_BOX = `${-HALF} ${-HALF} ${2 * HALF} ${2 * HALF}`;

/**
 * The degree wheel as it looks on this engine: its numbering, its direction, the pointer at the top. What turns lies on a layer of
 * its own, which is turned as a whole and not drawn anew.
 */
export function DegreeWheel(props: DegreeWheelProps) {
  const {
    ring,
    others = [],
    rotation,
    position,
    size,
    marks = [],
    blocked,
    tdc,
    turn,
    figure,
    word,
    description,
    onTurn,
  } = props;
  const theme = useTheme();
  const sign = runningSign(rotation);
  const own = useTurning(position);
  const turning = props.turning ?? own;
  const { style, ...grip } = useWheelDrag({ turning, position, sign, size, onTurn });
  const face = useOwnLayer(turning);
  const onFace = (at: number): number => -sign * at;
  const inner = INNER - others.length * ROW;

  return (
    <View
      testID="degree-wheel"
      role="img"
      aria-label={description}
      style={[{ width: size, height: size }, style]}
      {...grip}
    >
      <Animated.View
        ref={face}
        style={[LAYER, { width: size, height: size, transform: [{ rotate: asRotation(turning, sign) }] }]}
      >
        <Svg width={size} height={size} viewBox={VIEW_BOX}>
          <Defs>
            <Pattern id="blocked" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <Line x1="0" y1="0" x2="0" y2="9" stroke={theme.line} strokeWidth="2.5" />
            </Pattern>
          </Defs>
          <Face ring={ring} others={others} sign={sign} theme={theme} />
          {blocked ? (
            <Path
              d={band(80, inner - 5, onFace(blocked.from), -sign * blocked.sweep)}
              fill="url(#blocked)"
              stroke={theme.line}
              strokeWidth="1"
            />
          ) : null}
          {tdc !== null && tdc !== undefined ? (
            <Path
              d={stroke(78, inner, onFace(tdc))}
              stroke={theme.brass}
              strokeWidth="2.5"
              strokeDasharray="14 5 3 5"
            />
          ) : null}
          {marks.map((mark) => (
            <Mark
              key={`${mark.kind} ${mark.valve ?? ''} ${mark.at}`}
              mark={mark}
              clockwise={onFace(mark.at)}
              inner={inner}
              theme={theme}
            />
          ))}
        </Svg>
      </Animated.View>
      <Svg width={size} height={size} viewBox={VIEW_BOX} style={LAYER}>
        <Pointer theme={theme} />
        {turn ? <TurnArrow clockwise={(turn === 'forward') === (sign === 1)} theme={theme} /> : null}
      </Svg>
      <MiddleFigure turning={turning} size={size} resting={{ figure, word }} at={props.figureAt} />
    </View>
  );
}

interface MiddleFigureProps {
  readonly turning: Turning;
  readonly size: number;
  readonly resting: Figure;
  readonly at: ((position: number) => Figure) | undefined;
}

/** The reading in the middle. Under a turning finger it alone is drawn anew. */
function MiddleFigure({ turning, size, resting, at }: MiddleFigureProps) {
  const [live, setLive] = useState<string | null>(null);
  useEffect(() => {
    const id = turning.value.addListener(({ value }) => {
      const shown = turning.isHeld() && at ? at(Math.round(value * 4) / 4) : null;
      setLive(shown && `${shown.figure}\n${shown.word}`);
    });
    return () => turning.value.removeListener(id);
  }, [at, turning]);
  const [figure = '', word = ''] = live?.split('\n') ?? [resting.figure, resting.word];
  const scale = size / (2 * HALF);
  return (
    <View style={[LAYER, { width: size, height: size, alignItems: 'center', justifyContent: 'center' }]}>
      {figure ? (
        <Text
          className="font-figures-bold text-ink"
          style={{ fontSize: (figure.length > 5 ? 50 : 62) * scale, fontVariant: ['tabular-nums'] }}
        >
          {figure}
        </Text>
      ) : null}
      {word ? (
        <Text className="font-medium text-soft" style={{ fontSize: 23 * scale }}>
          {word}
        </Text>
      ) : null}
    </View>
  );
}

/** The ring itself. Drawn once; turning the wheel only turns the group that holds it. */
interface FaceProps {
  readonly ring: WheelRing;
  readonly others: readonly WheelRing[];
  readonly sign: 1 | -1;
  readonly theme: Palette;
}

const Face = memo(function Face({ ring, others, sign, theme }: FaceProps) {
  const ticks = useMemo(() => {
    if (ring.ring === 'rim') return tapeTicks(ring);
    const every = (step: number, length: number, not: number): string =>
      Array.from({ length: 360 / step }, (_, i) => i * step)
        .filter((at) => at % not !== 0)
        .map((at) => stroke(RIM - length, RIM, at))
        .join('');
    return { fine: every(1, 7, 5), middle: every(5, 11, 10), coarse: every(10, 15, 361) + stroke(RIM - 15, RIM, 0) };
  }, [ring]);
  return (
    <>
      <Circle r={RIM} fill={theme.raised} stroke={theme.line} strokeWidth="1.5" />
      <Circle r={INNER - others.length * ROW} fill={theme.ground} stroke={theme.line} strokeWidth="1" />
      <Path d={ticks.fine} stroke={theme.line} strokeWidth="0.8" />
      <Path d={ticks.middle} stroke={theme.soft} strokeWidth="1.1" />
      <Path d={ticks.coarse} stroke={theme.ink} strokeWidth="1.6" />
      <Numbers ring={ring} radius={RIM - 25} sign={sign} theme={theme} />
      {others.map((other, row) => (
        <Numbers key={ringWords(other)} ring={other} radius={INNER + 2 - row * ROW} sign={sign} theme={theme} faint />
      ))}
    </>
  );
});

/** A rim has no degrees: the inches or centimetres of a tape laid round it from the mark, both ways. */
function tapeTicks({ unit, round }: Extract<WheelRing, { ring: 'rim' }>) {
  const step = rimDegrees(unit === 'in' ? MM_PER_INCH : 10, round);
  const lines = (every: number, length: number): string =>
    Array.from({ length: Math.floor(180 / every) }, (_, i) => (i + 1) * every)
      .flatMap((at) => [stroke(RIM - length, RIM, at), stroke(RIM - length, RIM, -at)])
      .join('');
  const finest = unit === 'in' ? step / 8 : step / 5;
  return { fine: lines(finest, 6), middle: lines(step / 2, 10), coarse: lines(step, 16) + stroke(RIM - 22, RIM, 0) };
}

interface NumbersProps extends Pick<FaceProps, 'ring' | 'sign' | 'theme'> {
  readonly radius: number;
  readonly faint?: boolean;
}

/** One row of numbers round the wheel. */
function Numbers({ ring, radius, sign, theme, faint = false }: NumbersProps) {
  return faceNumbers(ring).map(({ at, text, strong }) => {
    const clockwise = -sign * at;
    const [x, y] = polar(radius, clockwise);
    const named = text === 'TDC' || text === 'BDC' || text === 'MARK';
    return (
      <SvgText
        key={at}
        x={x}
        y={y}
        rotation={clockwise}
        originX={x}
        originY={y}
        dy={5}
        textAnchor="middle"
        fontFamily={strong && !faint ? 'Barlow_600SemiBold' : 'Barlow_500Medium'}
        fontSize={faint ? 10.5 : strong ? 15.5 : 12}
        fill={faint ? theme.soft : named ? theme.brass : strong ? theme.ink : theme.soft}
      >
        {text}
      </SvgText>
    );
  });
}

interface MarkProps {
  readonly mark: WheelMark;
  readonly clockwise: number;
  readonly inner: number;
  readonly theme: Palette;
}

function Mark({ mark, clockwise, inner, theme }: MarkProps) {
  if (mark.kind === 'contact')
    return <Path d={stroke(84, inner, clockwise)} stroke={theme.ink} strokeWidth="3.5" strokeLinecap="round" />;
  const [x, y] = polar(inner - 13, clockwise);
  if (mark.valve === 'exhaust')
    return (
      <Rect
        x={x - 6}
        y={y - 6}
        width="12"
        height="12"
        rotation={clockwise}
        originX={x}
        originY={y}
        stroke={theme.exhaust}
        strokeWidth="3"
        fill={mark.kind === 'measured' ? theme.exhaust : theme.ground}
      />
    );
  return (
    <Circle
      cx={x}
      cy={y}
      r="7"
      stroke={theme.intake}
      strokeWidth="3"
      fill={mark.kind === 'measured' ? theme.intake : theme.ground}
    />
  );
}

/** A bent wire, as most builders make it. */
function Pointer({ theme }: { theme: Palette }) {
  return (
    <>
      <Path
        d="M78 -190 C50 -196 14 -196 6 -192 C0 -189 0 -184 0 -176"
        fill="none"
        stroke={theme.ink}
        strokeWidth="5"
        strokeLinecap="round"
      />
      <Path d="M-4 -179 L4 -179 L0 -157 Z" fill={theme.ink} />
      <Rect x="70" y="-196" width="16" height="12" fill={theme.line} />
    </>
  );
}

function TurnArrow({ clockwise, theme }: { clockwise: boolean; theme: Palette }) {
  const side = clockwise ? 1 : -1;
  const end = side * 74;
  const [x, y] = polar(186, end);
  return (
    <>
      <Path d={arc(186, side * 34, side * 36)} fill="none" stroke={theme.brass} strokeWidth="5" strokeLinecap="round" />
      <Path
        d="M-11 -2 L11 -2 L0 18 Z"
        fill={theme.brass}
        transform={`translate(${x} ${y}) rotate(${end - side * 90})`}
      />
    </>
  );
}
