import { wrap180 } from '@yosoku/core/units/angle';
import { useEffect, useRef } from 'react';
import type { PointerEvent, ViewProps } from 'react-native';
import type { Turning } from './turning';

/** Quarter degrees: as fine as a wheel is read. */
const STEP = 0.25;
/** A finger that rests this long has chosen. */
const REST_MS = 150;
const toStep = (degrees: number): number => Math.round(degrees / STEP) * STEP;

/**
 * A finger that turns something: the picture follows at every move, the reading (`onTurn`, crank degrees to the quarter) only where
 * the finger rests or lifts, so that nothing else has to keep up with it.
 */
export function useTurnByHand(turning: Turning, onTurn: ((position: number) => void) | undefined) {
  const loose = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const settle = (): void => {
    clearTimeout(timer.current);
    onTurn?.(toStep(loose.current));
  };
  return {
    grab: (position: number): void => {
      loose.current = position;
      turning.hold(true);
    },
    turnBy: (degrees: number): void => {
      if (!turning.isHeld()) return;
      loose.current += degrees;
      turning.value.setValue(loose.current);
      clearTimeout(timer.current);
      timer.current = setTimeout(settle, REST_MS);
    },
    release: (): void => {
      if (!turning.isHeld()) return;
      turning.hold(false);
      settle();
    },
  };
}

// Otherwise the page would scroll away under the finger.
export const GRIP_STYLE = { touchAction: 'none', userSelect: 'none' } as ViewProps['style'];

interface WheelDrag {
  readonly turning: Turning;
  readonly position: number;
  readonly sign: 1 | -1;
  readonly size: number;
  readonly onTurn: ((position: number) => void) | undefined;
}

/** Turning the wheel by a finger on it: the angle that the finger goes round the centre is the angle that the wheel turns. */
export function useWheelDrag({ turning, position, sign, size, onTurn }: WheelDrag): ViewProps {
  const hand = useTurnByHand(turning, onTurn);
  const last = useRef(0);
  const corner = useRef({ x: 0, y: 0 });
  if (!onTurn) return {};
  const angleOf = ({ nativeEvent }: PointerEvent): number =>
    (Math.atan2(nativeEvent.clientX - corner.current.x - size / 2, size / 2 - nativeEvent.clientY + corner.current.y) *
      180) /
    Math.PI;
  return {
    onPointerDown: (event) => {
      const { clientX, clientY, offsetX, offsetY } = event.nativeEvent;
      corner.current = { x: clientX - offsetX, y: clientY - offsetY };
      last.current = angleOf(event);
      hand.grab(position);
    },
    onPointerMove: (event) => {
      if (!turning.isHeld()) return;
      const angle = angleOf(event);
      hand.turnBy(sign * wrap180(angle - last.current));
      last.current = angle;
    },
    onPointerUp: hand.release,
    onPointerLeave: hand.release,
    onPointerCancel: hand.release,
    style: GRIP_STYLE,
  };
}
