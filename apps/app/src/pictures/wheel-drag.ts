import { useRef, useState } from 'react';
import type { PointerEvent, ViewProps } from 'react-native';

interface WheelDrag {
  readonly position: number;
  readonly sign: 1 | -1;
  readonly size: number;
  readonly onTurn?: ((position: number) => void) | undefined;
}

/** Quarter degrees: as fine as a wheel is read. */
const STEP = 0.25;
const toStep = (degrees: number): number => Math.round(degrees / STEP) * STEP;

/** Turning the wheel by a finger on it: the angle that the finger goes round the centre is the angle that the wheel turns. */
export function useWheelDrag({ position, sign, size, onTurn }: WheelDrag) {
  const [held, setHeld] = useState(false);
  const last = useRef(0);
  const loose = useRef(0);
  if (!onTurn) return { held: false, handlers: {}, style: {} };

  const angleOf = ({ nativeEvent }: PointerEvent): number =>
    (Math.atan2(nativeEvent.offsetX - size / 2, size / 2 - nativeEvent.offsetY) * 180) / Math.PI;

  const handlers: ViewProps = {
    onPointerDown: (event) => {
      last.current = angleOf(event);
      loose.current = position;
      setHeld(true);
    },
    onPointerMove: (event) => {
      if (!held) return;
      const angle = angleOf(event);
      const by = ((angle - last.current + 540) % 360) - 180;
      last.current = angle;
      loose.current += sign * by;
      onTurn(toStep(loose.current));
    },
    onPointerUp: () => setHeld(false),
    onPointerLeave: () => setHeld(false),
    onPointerCancel: () => setHeld(false),
  };
  // Otherwise the page would scroll away under the finger.
  return { held, handlers, style: { touchAction: 'none', userSelect: 'none' } as ViewProps['style'] };
}
