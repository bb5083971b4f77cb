import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Line, Path } from 'react-native-svg';
import type { Valve } from '@yosoku/core/cam/card';
import { lobeAt } from '@yosoku/core/cam/lobe';
import { polar, stroke } from '@yosoku/core/crank/dial';
import { runningSign } from '@yosoku/core/crank/ring-face';
import type { Stand } from '@yosoku/core/simulation/whole-engine';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import type { LiveEngine } from './live-engine';
import { type Move, MovingLayer } from './moving-layer';

interface PictureProps {
  readonly live: LiveEngine;
  readonly width: number;
  readonly height: number;
}

/** Radius of the base circle against the greatest lift of a common cam, and what the picture holds beside both. From memory. */
const BASE_MM = 14;
const LIFTER_MM = 16;

/** One lobe with its lifter, to scale: what lies under the lifter is what lifts it. */
export function LobePicture({
  live,
  width,
  height,
  valve,
  dial,
}: PictureProps & { readonly valve: Valve; readonly dial: boolean }) {
  const theme = useTheme();
  const lobe = live.engine.lobes[valve];
  const sign = runningSign(live.engine.rotation);
  const reach = BASE_MM + lobe.peak;
  const scale = Math.min((width - 8) / (2 * reach), (height - 22) / (2 * reach + LIFTER_MM));
  const follow = useMemo(
    () => ({
      lobe: ({ crank, lag, advance }: Stand): Move => ({ turn: (sign * (crank + lag + advance[valve])) / 2 }),
      lifter: ({ lifted }: Stand): Move => ({ y: -lifted[valve] * scale }),
    }),
    [scale, sign, valve],
  );
  const outline = useMemo(
    () =>
      Array.from({ length: 240 }, (_, i) => i * 3 - 360)
        .map((angle, i) => {
          const [x, y] = polar((BASE_MM + lobeAt(lobe, angle).lift) * scale, (-sign * angle) / 2);
          return `${i === 0 ? 'M' : 'L'}${x.toFixed(2)} ${y.toFixed(2)}`;
        })
        .join(''),
    [lobe, scale, sign],
  );
  const size = 2 * reach * scale + 4;
  const centre = { x: width / 2, y: height - 18 - size / 2 };
  const colour = theme[valve];
  const lifterTop = BASE_MM * scale;
  return (
    <View style={{ width, height }}>
      <MovingLayer
        testID={`lobe-${valve}`}
        live={live}
        x={centre.x}
        y={centre.y}
        width={size}
        height={size}
        move={follow.lobe}
      >
        <Svg width={size} height={size} viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}>
          <Path
            d={`${outline}Z`}
            fill={theme.raised}
            stroke={colour}
            strokeWidth="2"
            strokeDasharray={valve === 'exhaust' ? '5 3' : undefined}
          />
          <Circle r={BASE_MM * scale * 0.4} fill={theme.ground} stroke={theme.line} strokeWidth="1" />
          <Path d={stroke(0, BASE_MM * scale * 0.4, 0)} stroke={theme.line} strokeWidth="1" />
        </Svg>
      </MovingLayer>
      <MovingLayer
        testID={`lifter-${valve}`}
        live={live}
        x={centre.x}
        y={centre.y}
        width={width}
        height={2 * size}
        move={follow.lifter}
      >
        <Svg width={width} height={2 * size} viewBox={`${-width / 2} ${-size} ${width} ${2 * size}`}>
          <Path
            d={`M-11 ${-lifterTop - LIFTER_MM * scale}H11V${-lifterTop - 5}L0 ${-lifterTop}L-11 ${-lifterTop - 5}Z`}
            fill={theme.hairline}
            stroke={theme.ink}
            strokeWidth="1.5"
          />
          {dial ? (
            <Line x1="0" x2="0" y1={-lifterTop - LIFTER_MM * scale} y2={-size} stroke={theme.brass} strokeWidth="3" />
          ) : null}
        </Svg>
      </MovingLayer>
      <View style={{ position: 'absolute', bottom: 0, width }}>
        <Words look="soft" tone={valve} className="text-center">
          {valve === 'intake' ? '● intake' : '■ exhaust'}
        </Words>
      </View>
    </View>
  );
}

/** Timing drive: the slack shows where it hangs, and is taken up before the cam moves. */
export function DrivePicture({ live, width, height }: PictureProps) {
  const theme = useTheme();
  const sign = runningSign(live.engine.rotation);
  const { slack } = live.engine;
  const small = Math.min(width * 0.18, height * 0.12);
  const large = small * 2;
  const [top, low] = [large + 10, height - small - 24];
  const follow = useMemo(
    () => ({
      crank: ({ crank }: Stand): Move => ({ turn: sign * crank }),
      cam: ({ crank, lag }: Stand): Move => ({ turn: (sign * (crank + lag)) / 2 }),
      // Turned the way it runs, one run pulls and the other hangs; turned back they change over as the slack goes through.
      right: ({ lag }: Stand): Move => ({ stretch: slack === 0 ? 0 : sign === 1 ? lag / slack : 1 - lag / slack }),
      left: ({ lag }: Stand): Move => ({ stretch: slack === 0 ? 0 : sign === 1 ? 1 - lag / slack : lag / slack }),
    }),
    [sign, slack],
  );
  const sag = Math.min(width * 0.22, 3 + slack * 2);
  const run = low - top;
  return (
    <View role="img" aria-label="The timing drive." style={{ width, height }}>
      <Svg width={width} height={height} style={{ position: 'absolute' }}>
        <Path
          d={`M${width / 2 - large} ${top}A${large} ${large} 0 0 1 ${width / 2 + large} ${top}`}
          fill="none"
          stroke={theme.line}
          strokeWidth="3"
        />
        <Path
          d={`M${width / 2 - small} ${low}A${small} ${small} 0 0 0 ${width / 2 + small} ${low}`}
          fill="none"
          stroke={theme.line}
          strokeWidth="3"
        />
      </Svg>
      {(['left', 'right'] as const).map((side) => {
        const way = side === 'left' ? -1 : 1;
        return (
          <MovingLayer
            key={side}
            testID={`chain-${side}`}
            live={live}
            x={width / 2 + (way * (large + small)) / 2}
            y={(top + low) / 2}
            width={2 * (sag + 2)}
            height={run}
            move={follow[side]}
          >
            <Svg width={2 * (sag + 2)} height={run} viewBox={`${-sag - 2} 0 ${2 * (sag + 2)} ${run}`}>
              <Path d={`M0 0Q${way * 2 * sag} ${run / 2} 0 ${run}`} fill="none" stroke={theme.soft} strokeWidth="2" />
            </Svg>
          </MovingLayer>
        );
      })}
      <Svg width={width} height={height} style={{ position: 'absolute' }}>
        {[-1, 1].map((way) => (
          <Line
            key={way}
            x1={width / 2 + way * large}
            x2={width / 2 + way * small}
            y1={top}
            y2={low}
            stroke={theme.line}
            strokeWidth="1"
            strokeDasharray="2 4"
          />
        ))}
      </Svg>
      <Sprocket testID="cam-gear" live={live} x={width / 2} y={top} radius={large} teeth={28} move={follow.cam} />
      <Sprocket testID="crank-gear" live={live} x={width / 2} y={low} radius={small} teeth={14} move={follow.crank} />
      <View style={{ position: 'absolute', bottom: 0, width }}>
        <Words look="soft" className="text-center">
          drive
        </Words>
      </View>
    </View>
  );
}

interface SprocketProps {
  readonly testID: string;
  readonly live: LiveEngine;
  /** Its middle, pixels. */
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly teeth: number;
  readonly move: (stand: Stand) => Move;
}

function Sprocket({ testID, live, x, y, radius, teeth, move }: SprocketProps) {
  const theme = useTheme();
  const size = 2 * radius + 6;
  const gear = Array.from({ length: teeth }, (_, i) => stroke(radius - 2.5, radius + 1.5, (i * 360) / teeth)).join('');
  return (
    <MovingLayer testID={testID} live={live} x={x} y={y} width={size} height={size} move={move}>
      <Svg width={size} height={size} viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}>
        <Circle r={radius - 1} fill={theme.raised} stroke={theme.soft} strokeWidth="1.2" />
        <Path d={gear} stroke={theme.soft} strokeWidth="1.2" />
        <Circle cy={-radius * 0.6} r="2" fill={theme.brass} />
        <Circle r="2" fill={theme.soft} />
      </Svg>
    </MovingLayer>
  );
}
