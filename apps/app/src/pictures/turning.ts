import { wrap180 } from '@yosoku/core/units/angle';
import { useEffect, useRef, useState } from 'react';
import { AccessibilityInfo, Animated, Easing } from 'react-native';

const SWING_MS = 220;

/**
 * An angle that pictures follow frame by frame, without anything being drawn anew: ring position in crank degrees, not wrapped.
 * Held while a finger turns it.
 */
export interface Turning {
  readonly value: Animated.Value;
  readonly isHeld: () => boolean;
  readonly hold: (held: boolean) => void;
}

/** A turning that nothing swings: whoever made it sets its value. */
export function makeTurning(position: number): Turning {
  let held = false;
  return {
    value: new Animated.Value(position),
    isHeld: () => held,
    hold: (now) => {
      held = now;
    },
  };
}

/**
 * Swings to a position (crank degrees) the short way in under a quarter of a second; at once under reduced motion, and not at all
 * while a finger holds it: then the finger leads.
 */
export function useTurning(position: number): Turning {
  const [turning] = useState(() => makeTurning(position));
  const at = useRef(position);
  const still = useRef(false);
  useEffect(() => {
    void AccessibilityInfo.isReduceMotionEnabled().then((reduced) => (still.current = reduced));
    const id = turning.value.addListener(({ value }) => (at.current = value));
    return () => turning.value.removeListener(id);
  }, [turning]);
  useEffect(() => {
    if (turning.isHeld()) return;
    const way = wrap180(position - at.current);
    if (way === 0) return;
    const target = at.current + way;
    if (still.current) {
      turning.value.setValue(target);
      return;
    }
    const swing = Animated.timing(turning.value, {
      toValue: target,
      duration: SWING_MS,
      easing: Easing.out(Easing.cubic),
      useNativeDriver: false,
    });
    swing.start();
    return () => swing.stop();
  }, [position, turning]);
  return turning;
}

const FAR = 36_000;

/** The turning as a rotation on the screen: `perDegree` is 1 clockwise, −1 counter-clockwise. */
export const asRotation = ({ value }: Turning, perDegree: 1 | -1) =>
  value.interpolate({ inputRange: [-FAR, FAR], outputRange: [`${-FAR * perDegree}deg`, `${FAR * perDegree}deg`] });

/** The turning as a shift on the screen, in pixels, of a strip that shows one whole turn from ring position 0. */
export const asShift = ({ value }: Turning, perDegree: number) =>
  Animated.modulo(value, 360).interpolate({ inputRange: [0, 360], outputRange: [0, 360 * perDegree] });
