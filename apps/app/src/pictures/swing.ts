import { useEffect, useRef, useState } from 'react';
import { AccessibilityInfo } from 'react-native';

const SWING_MS = 220;
const easeOut = (part: number): number => 1 - (1 - part) ** 3;

/**
 * Swings an angle (degrees) to its target the short way in under a quarter of a second; at once under reduced motion,
 * and at once while `held` (a finger is on it).
 */
export function useSwing(target: number, held: boolean): number {
  const [shown, setShown] = useState(target);
  const from = useRef(target);
  const still = useRef(false);
  useEffect(() => {
    void AccessibilityInfo.isReduceMotionEnabled().then((reduced) => (still.current = reduced));
  }, []);
  useEffect(() => {
    const start = from.current;
    const way = ((((target - start) % 360) + 540) % 360) - 180;
    if (way === 0) return;
    if (held || still.current || typeof requestAnimationFrame === 'undefined') {
      from.current = target;
      setShown(target);
      return;
    }
    const began = performance.now();
    let frame = requestAnimationFrame(function step(now: number) {
      const part = Math.min(1, Math.max(0, (now - began) / SWING_MS));
      from.current = part === 1 ? target : start + way * easeOut(part);
      setShown(from.current);
      if (part < 1) frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [target, held]);
  return shown;
}
