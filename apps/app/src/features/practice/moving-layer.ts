import type { Animated, ViewStyle } from 'react-native';

const FAR = 36_000;

/** Degrees of an animated value as a rotation on the screen, clockwise. */
export const asDegrees = (value: Animated.Value) =>
  value.interpolate({ inputRange: [-FAR, FAR], outputRange: [`${-FAR}deg`, `${FAR}deg`] });

type Move =
  | { readonly rotate: ReturnType<typeof asDegrees> }
  | { readonly translateX: Animated.Value }
  | { readonly translateY: Animated.Value }
  | { readonly scaleX: Animated.Value };

/** A layer of a picture whose middle lies at a point (pixels) and which is only moved, never drawn anew. */
export const layer = (x: number, y: number, width: number, height: number, transform: Move[]) => ({
  position: 'absolute' as const,
  left: x - width / 2,
  top: y - height / 2,
  width,
  height,
  pointerEvents: 'none' as ViewStyle['pointerEvents'],
  transform,
});
