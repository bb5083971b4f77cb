import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { VALVES, type Valve } from '@yosoku/core/cam/card';
import { pistonDrop } from '@yosoku/core/crank/slider-crank';
import { formatComputedLength, type LengthUnit } from '@yosoku/core/units/length';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { type DrawnLobe, liftOf, lobePoints, peakOf } from './lobe-path';

type Lobes = Readonly<Record<Valve, DrawnLobe | null>>;

interface CycleRibbonProps {
  readonly card: Lobes;
  readonly measured?: Lobes;
  /** As they would come to lie. */
  readonly tried?: Lobes;
  /** Readings as marks: cycle angle and lift, mm. */
  readonly dots?: readonly { readonly valve: Valve; readonly angle: number; readonly lift: number | null }[];
  readonly units: LengthUnit;
  readonly width: number;
  readonly description: string;
  readonly testID?: string;
}

const HEIGHT = 158;
const TOP = 12;
const BASE = 118;
const SIDE = 10;
/** Narrower than this, the strokes’ names would run into one another. */
const NARROW = 280;
/** The exhaust is dashed. */
const DASH = '7 4';
const STROKES = [
  { name: 'Power', middle: -270 },
  { name: 'Exhaust', middle: -90 },
  { name: 'Intake', middle: 90 },
  { name: 'Compression', middle: 270 },
] as const;
const DEADS = [
  { at: -360, name: 'TDC' },
  { at: -180, name: 'BDC' },
  { at: 0, name: 'TDC' },
  { at: 180, name: 'BDC' },
  { at: 360, name: 'TDC' },
] as const;
/** Only the shape of its travel is drawn. */
const SOME_CRANK = { stroke: 2, rod: 3.3 } as const;
const NOBODY: Lobes = { intake: null, exhaust: null };

/**
 * 720 degrees laid flat: the strokes, both lobes as on the card (hollow) and as measured (filled), the overlap shaded, the piston as a
 * thin line. A cursor, moved by finger or arrow keys, says what stands where.
 */
export function CycleRibbon(props: CycleRibbonProps) {
  const { card, measured = NOBODY, tried = NOBODY, dots = [], units, width, description, testID } = props;
  const theme = useTheme();
  const [cursor, setCursor] = useState<number | null>(null);
  const all = VALVES.flatMap((valve) => [card[valve], measured[valve], tried[valve]].filter((each) => each !== null));
  const plot: Plot = plotOf(width, Math.max(1, ...all.map(peakOf)));
  const { x, y, scale } = plot;
  const overlap = overlapOf(
    tried.intake ?? measured.intake ?? card.intake,
    tried.exhaust ?? measured.exhaust ?? card.exhaust,
  );
  const move = (to: number): void => setCursor(Math.max(-360, Math.min(360, Math.round(to))));
  const colour = { intake: theme.intake, exhaust: theme.exhaust };

  return (
    <View>
      <View
        testID={testID}
        role="slider"
        tabIndex={0}
        aria-label={description}
        aria-valuemin={-360}
        aria-valuemax={360}
        aria-valuenow={cursor ?? 0}
        aria-valuetext={cursor === null ? 'Arrow keys say what stands where.' : cursorWords(cursor, props)}
        style={{ width, height: HEIGHT }}
        onPointerDown={({ nativeEvent }) => move((nativeEvent.offsetX - SIDE) / scale - 360)}
        onPointerMove={({ nativeEvent }) => {
          if (nativeEvent.buttons === 1) move((nativeEvent.offsetX - SIDE) / scale - 360);
        }}
        {...arrowKeys((by) => move((cursor ?? 0) + by))}
      >
        <Svg width={width} height={HEIGHT} style={{ pointerEvents: 'none' }}>
          {overlap ? (
            <Rect
              x={x(overlap[0])}
              y={TOP}
              width={(overlap[1] - overlap[0]) * scale}
              height={BASE - TOP}
              fill={theme.raised}
            />
          ) : null}
          <Ground width={width} plot={plot} />
          <LobesDrawn card={card} measured={measured} tried={tried} plot={plot} />
          {dots.map(({ valve, angle, lift }, i) =>
            lift === null ? null : (
              <DotMark key={i} valve={valve} x={x(angle)} y={y(lift)} colour={colour[valve]} ground={theme.ground} />
            ),
          )}
          {cursor === null ? null : (
            <Line x1={x(cursor)} x2={x(cursor)} y1={2} y2={BASE} stroke={theme.brass} strokeWidth="2" />
          )}
        </Svg>
      </View>
      <Words look="soft" className="min-h-[20px] px-2" testID={testID ? `${testID}-cursor` : undefined}>
        {cursor === null ? legend(card, measured, tried, units) : cursorWords(cursor, props)}
      </Words>
    </View>
  );
}

/** From cycle angle and lift to the picture, and the outline of a lobe there. */
interface Plot {
  /** Pixels of one degree. */
  readonly scale: number;
  readonly x: (angle: number) => number;
  readonly y: (lift: number) => number;
  readonly outline: (lobe: DrawnLobe, closed: boolean) => string;
}

/** @param top lift at the upper edge, mm. */
function plotOf(width: number, top: number): Plot {
  const scale = (width - 2 * SIDE) / 720;
  const x = (angle: number): number => SIDE + (angle + 360) * scale;
  const y = (lift: number): number => BASE - (lift / top) * (BASE - TOP);
  const outline: Plot['outline'] = (lobe, closed) =>
    lobePoints(lobe)
      .map((piece) => {
        const [first] = piece;
        const last = piece.at(-1);
        if (!first || !last) return '';
        const line = piece
          .map(([at, lift], i) => `${i === 0 ? 'M' : 'L'}${x(at).toFixed(1)} ${y(lift).toFixed(1)}`)
          .join('');
        return closed ? `${line}L${x(last[0]).toFixed(1)} ${BASE}L${x(first[0]).toFixed(1)} ${BASE}Z` : line;
      })
      .join('');
  return { scale, x, y, outline };
}

/** What lies under the lobes: the piston’s travel, the dead centres, the names of the strokes. */
function Ground({ width, plot: { x } }: { readonly width: number; readonly plot: Plot }) {
  const theme = useTheme();
  return (
    <G>
      <Path
        d={Array.from({ length: 181 }, (_, i) => -360 + i * 4)
          .map(
            (at, i) =>
              `${i === 0 ? 'M' : 'L'}${x(at).toFixed(1)} ${(TOP + (pistonDrop(SOME_CRANK, at) / 2) * (BASE - TOP)).toFixed(1)}`,
          )
          .join('')}
        fill="none"
        stroke={theme.hairline}
        strokeWidth="1.2"
      />
      {DEADS.map(({ at, name }) => (
        <G key={at}>
          <Line
            x1={x(at)}
            x2={x(at)}
            y1={TOP}
            y2={BASE + 5}
            stroke={at === 0 ? theme.brass : theme.line}
            strokeWidth={at === 0 ? 1.6 : 1}
          />
          <SvgText
            x={x(at)}
            y={BASE + 19}
            textAnchor={at === -360 ? 'start' : at === 360 ? 'end' : 'middle'}
            fontFamily="Barlow_500Medium"
            fontSize="13"
            fill={theme.soft}
          >
            {name}
          </SvgText>
        </G>
      ))}
      {(width < NARROW ? [] : STROKES).map(({ name, middle }) => (
        <SvgText
          key={name}
          x={x(middle)}
          y={BASE + 35}
          textAnchor="middle"
          fontFamily="BarlowSemiCondensed_400Regular"
          fontSize="13"
          fill={theme.soft}
        >
          {name}
        </SvgText>
      ))}
      <Line x1={SIDE} x2={width - SIDE} y1={BASE} y2={BASE} stroke={theme.line} strokeWidth="1.2" />
    </G>
  );
}

/** The lobes as on the card, as measured, and as they would come to lie. */
function LobesDrawn({
  card,
  measured,
  tried,
  plot,
}: Readonly<Record<'card' | 'measured' | 'tried', Lobes>> & { readonly plot: Plot }) {
  const theme = useTheme();
  const colour = { intake: theme.intake, exhaust: theme.exhaust };
  return (
    <G>
      {VALVES.map((valve) => {
        const given = card[valve];
        // Under the measured one, and wider: where they part, it shows on one side.
        return given ? (
          <Path
            key={valve}
            d={plot.outline(given, false)}
            fill="none"
            stroke={measured[valve] ? theme.soft : colour[valve]}
            strokeWidth={measured[valve] ? 4 : 2}
            strokeOpacity={measured[valve] ? 0.7 : 1}
            strokeDasharray={valve === 'exhaust' ? DASH : undefined}
          />
        ) : null;
      })}
      {VALVES.map((valve) => {
        const found = measured[valve];
        return found ? (
          <G key={valve}>
            <Path d={plot.outline(found, true)} fill={colour[valve]} fillOpacity={0.22} />
            <Path
              d={plot.outline(found, false)}
              fill="none"
              stroke={colour[valve]}
              strokeWidth="2"
              strokeDasharray={valve === 'exhaust' ? DASH : undefined}
            />
          </G>
        ) : null;
      })}
      {VALVES.map((valve) => {
        const would = tried[valve];
        return would ? (
          <Path
            key={valve}
            d={plot.outline(would, false)}
            fill="none"
            stroke={theme.brass}
            strokeWidth="2.5"
            strokeDasharray={valve === 'exhaust' ? DASH : undefined}
          />
        ) : null;
      })}
    </G>
  );
}

/** A round mark for the intake, a square one for the exhaust. */
function DotMark(props: { valve: Valve; x: number; y: number; colour: string; ground: string }) {
  const { valve, x, y, colour, ground } = props;
  return valve === 'intake' ? (
    <Circle cx={x} cy={y} r="4.5" fill={colour} stroke={ground} strokeWidth="1" />
  ) : (
    <Rect x={x - 4} y={y - 4} width="8" height="8" fill={colour} stroke={ground} strokeWidth="1" />
  );
}

function legend(card: Lobes, measured: Lobes, tried: Lobes, units: LengthUnit): string {
  const name = (of: Lobes): string[] =>
    VALVES.flatMap((valve) => {
      const lobe = of[valve];
      return lobe ? [`${valve} ${formatComputedLength(peakOf(lobe), units)}`] : [];
    });
  const [given, found] = [name(card), name(measured)];
  if (given.length + found.length === 0) return 'A lobe lift draws the lobes here.';
  return [
    tried.intake || tried.exhaust ? 'Brass: as tried' : '',
    found.length > 0 ? `Filled: measured, ${found.join(', ')}` : '',
    given.length > 0 ? `${found.length > 0 ? 'Grey: card' : 'Card'}, ${given.join(', ')}` : '',
  ]
    .filter((each) => each !== '')
    .join('. ');
}

/** `angleWords(-21)` is "21° BTDC". */
function angleWords(angle: number): string {
  if (angle === 0) return 'TDC';
  if (Math.abs(angle) === 180) return 'BDC';
  if (angle < -180) return angle === -360 ? 'firing TDC' : `${360 + angle}° after firing TDC`;
  if (angle > 180) return angle === 360 ? 'firing TDC' : `${angle - 180}° ABDC`;
  return angle < 0 ? `${-angle}° BTDC` : `${angle}° ATDC`;
}

function cursorWords(cursor: number, { card, measured = NOBODY, tried = NOBODY, units }: CycleRibbonProps): string {
  const lifts = VALVES.flatMap((valve) => {
    const lobe = tried[valve] ?? measured[valve] ?? card[valve];
    return lobe ? [`${valve} ${formatComputedLength(liftOf(lobe, cursor), units)}`] : [];
  });
  return `${angleWords(cursor)}: ${lifts.join(', ')}`;
}

/** Where both valves are open about TDC: cycle angles. */
function overlapOf(intake: DrawnLobe | null, exhaust: DrawnLobe | null): readonly [number, number] | null {
  if (!intake || !exhaust) return null;
  const open = Array.from({ length: 241 }, (_, i) => i - 120).filter(
    (at) => liftOf(intake, at) > OPEN && liftOf(exhaust, at) > OPEN,
  );
  const [first, last] = [open[0], open.at(-1)];
  return first === undefined || last === undefined ? null : [first, last];
}

/** Lift from which a valve counts as open in the picture, mm. */
const OPEN = 0.15;

/** Left and right move by 1, with Shift or Page by 10. */
function arrowKeys(move: (by: number) => void) {
  return {
    onKeyDown: (event: { readonly key: string; readonly shiftKey?: boolean; readonly preventDefault: () => void }) => {
      const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
      if (by === undefined) return;
      event.preventDefault();
      move(event.shiftKey ? by * 10 : by);
    },
  };
}
