import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Line, Path, Rect } from 'react-native-svg';
import { runningSign } from '@yosoku/core/crank/ring-face';
import { crankTrainAt } from '@yosoku/core/crank/slider-crank';
import { type Stand, againstStop, pistonBelow } from '@yosoku/core/simulation/whole-engine';
import { formatComputedLength } from '@yosoku/core/units/length';
import { useTheme } from '@/ui/theme';
import type { LiveEngine } from './live-engine';
import { type Move, MovingLayer } from './moving-layer';
import { useRested } from './use-live-engine';

interface CylinderPictureProps {
  readonly live: LiveEngine;
  readonly units: 'in' | 'mm';
  readonly width: number;
  readonly height: number;
}

/** Shares of the stroke: what the picture shows beyond stroke and rod. */
const BELOW = 0.78;
const CROWN = 0.36;
const SKIRT = 0.34;
const ABOVE = 0.22;
const BORE = 0.96;
const PIN_WEB = 0.18;

/** Crank, rod and piston of cylinder 1 in its bore, seen from the wheel; the stop across it when it is fitted. Everything to scale. */
export function CylinderPicture({ live, units, width, height }: CylinderPictureProps) {
  const theme = useTheme();
  const { crank, rotation } = live.engine;
  const sign = runningSign(rotation);
  const stand = useRested(live);
  const scale = height / ((crank.stroke / 2) * (1 + 2 * BELOW) + crank.rod + crank.stroke * (CROWN + ABOVE));
  const moves = useMemo(() => {
    const at = (stand: Stand) => crankTrainAt(crank, stand.crank);
    return {
      web: (now: Stand): Move => ({ turn: sign * at(now).crank }),
      rod: (now: Stand): Move => {
        const { pin, rodLean } = at(now);
        return { x: sign * pin.side * scale, y: -pin.height * scale, turn: sign * rodLean };
      },
      piston: (now: Stand): Move => {
        const { piston } = at(now);
        return { x: sign * piston.side * scale, y: -piston.height * scale };
      },
    };
  }, [crank, scale, sign]);

  const centre = { x: width / 2, y: height - (crank.stroke / 2 + (crank.stroke / 2) * BELOW) * scale };
  const [stroke, rod] = [crank.stroke * scale, crank.rod * scale];
  const bore = Math.min(width - 16, stroke * BORE);
  const highest = crankTrainAt(crank, 0).piston.height * scale + stroke * CROWN;
  const deck = centre.y - highest;
  const bottom = centre.y - (highest - stroke - stroke * (CROWN + SKIRT));
  const throwSize = stroke * 1.5;
  const web = stroke * PIN_WEB;
  const stop = stand.stop === null ? null : deck + stand.stop * scale;
  const against = againstStop(live.engine, stand);
  const words = `Cylinder 1. The piston stands ${formatComputedLength(pistonBelow(live.engine, stand), units)} below the top${
    stand.stop === null ? '' : against ? `, against the stop, turned ${against}` : ', the stop is in'
  }.`;

  return (
    <View testID="cylinder" role="img" aria-label={words} style={{ width, height, overflow: 'hidden' }}>
      <Svg width={width} height={height} style={{ position: 'absolute' }}>
        {[-1, 1].map((side) => (
          <Path
            key={side}
            d={`M${centre.x + (side * bore) / 2} ${deck}V${bottom}h${side * 7}V${deck}Z`}
            fill={theme.raised}
            stroke={theme.line}
            strokeWidth="1"
          />
        ))}
        <Line x1={4} x2={centre.x - bore / 2} y1={deck} y2={deck} stroke={theme.line} strokeWidth="2" />
        <Line x1={centre.x + bore / 2} x2={width - 4} y1={deck} y2={deck} stroke={theme.line} strokeWidth="2" />
      </Svg>
      <MovingLayer
        testID="crank-web"
        live={live}
        x={centre.x}
        y={centre.y}
        width={throwSize}
        height={throwSize}
        move={moves.web}
      >
        <WebShape size={throwSize} stroke={stroke} web={web} />
      </MovingLayer>
      <MovingLayer
        testID="piston"
        live={live}
        x={centre.x}
        y={centre.y}
        width={bore}
        height={stroke * 2}
        move={moves.piston}
      >
        <PistonShape bore={bore} stroke={stroke} />
      </MovingLayer>
      <MovingLayer
        testID="rod"
        live={live}
        x={centre.x}
        y={centre.y}
        width={web * 2.6}
        height={rod * 2 + web * 2}
        move={moves.rod}
      >
        <RodShape rod={rod} web={web} />
      </MovingLayer>
      {stop === null ? null : (
        <Svg width={width} height={height} style={{ position: 'absolute', pointerEvents: 'none' }}>
          <Rect
            x={centre.x - bore / 2 - 12}
            y={deck - 9}
            width={bore + 24}
            height={9}
            fill={against ? theme.brass : theme.ground}
            stroke={theme.brass}
            strokeWidth="1.5"
          />
          <Rect x={centre.x - 4} y={deck - 14} width={8} height={stop - deck + 14} fill={theme.brass} />
        </Svg>
      )}
    </View>
  );
}

/** The crank’s web with its pin, about the middle of the main bearing. */
function WebShape({ size, stroke, web }: { readonly size: number; readonly stroke: number; readonly web: number }) {
  const theme = useTheme();
  return (
    <Svg width={size} height={size} viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}>
      <Path
        d={`M${-web} ${-stroke / 2}A${web} ${web} 0 0 1 ${web} ${-stroke / 2}L${web * 2} ${stroke * 0.2}A${stroke * 0.42} ${stroke * 0.42} 0 0 1 ${-web * 2} ${stroke * 0.2}Z`}
        fill={theme.raised}
        stroke={theme.soft}
        strokeWidth="1.5"
      />
      <Circle r={web * 0.8} fill={theme.ground} stroke={theme.soft} strokeWidth="1.5" />
      <Circle r={2} fill={theme.soft} />
    </Svg>
  );
}

/** A piston with its rings, about its pin. */
function PistonShape({ bore, stroke }: { readonly bore: number; readonly stroke: number }) {
  const theme = useTheme();
  return (
    <Svg width={bore} height={stroke * 2} viewBox={`${-bore / 2} ${-stroke} ${bore} ${stroke * 2}`}>
      <Rect
        x={-bore / 2 + 1.5}
        y={-stroke * CROWN}
        width={bore - 3}
        height={stroke * (CROWN + SKIRT)}
        rx="3"
        fill={theme.hairline}
        stroke={theme.ink}
        strokeWidth="1.5"
      />
      {[0.06, 0.12, 0.18].map((down) => (
        <Line
          key={down}
          x1={-bore / 2 + 2}
          x2={bore / 2 - 2}
          y1={stroke * (down - CROWN)}
          y2={stroke * (down - CROWN)}
          stroke={theme.ink}
          strokeWidth="1"
        />
      ))}
    </Svg>
  );
}

/** A rod, about its big end. */
function RodShape({ rod, web }: { readonly rod: number; readonly web: number }) {
  const theme = useTheme();
  return (
    <Svg
      width={web * 2.6}
      height={rod * 2 + web * 2}
      viewBox={`${-web * 1.3} ${-rod - web} ${web * 2.6} ${rod * 2 + web * 2}`}
    >
      <Path
        d={`M${-web * 0.6} 0L${-web * 0.38} ${-rod}A${web * 0.38} ${web * 0.38} 0 0 1 ${web * 0.38} ${-rod}L${web * 0.6} 0Z`}
        fill={theme.raised}
        stroke={theme.soft}
        strokeWidth="1.5"
      />
      <Circle r={web} fill={theme.raised} stroke={theme.soft} strokeWidth="1.5" />
      <Circle r={web * 0.4} fill={theme.ground} stroke={theme.soft} strokeWidth="1" />
      <Circle cy={-rod} r={web * 0.5} fill={theme.raised} stroke={theme.soft} strokeWidth="1.5" />
    </Svg>
  );
}
