import { wrap180 } from '@yosoku/core/units/angle';
import { useEffect, useMemo, useRef } from 'react';
import { type PointerEvent, View, type ViewProps } from 'react-native';
import { runningSign } from '@yosoku/core/crank/ring-face';
import { formatReading, readingAt } from '@yosoku/core/crank/wheel';
import { underPointer, wheelTurned } from '@yosoku/core/simulation/whole-engine';
import { DegreeWheel } from '@/pictures/degree-wheel';
import { SlideRule } from '@/pictures/slide-rule';
import { type Turning, makeTurning } from '@/pictures/turning';
import { GRIP_STYLE } from '@/pictures/wheel-drag';
import type { LiveEngine } from './live-engine';
import { useRested } from './use-live-engine';

/** What the hands are on: the crank turns everything, the wheel turns on its hub. */
export type HandsOn = 'crank' | 'wheel';

/** Turns what the hands are on. On the wheel, a positive figure brings what comes after under the pointer, as turning the crank would. */
export function turnBy(live: LiveEngine, hands: HandsOn, by: number, smoothly: boolean): void {
  if (hands === 'wheel') live.change((stand) => wheelTurned(stand, by));
  else if (smoothly) live.roll(by);
  else live.turn(by);
}

interface WheelPictureProps {
  readonly live: LiveEngine;
  readonly size: number;
  readonly hands: HandsOn;
}

/** Wheel steps of a mouse: so many crank degrees for each notch of about 100 pixels. */
const PER_PIXEL = 0.02;

/** The wheel of an engine as something that pictures follow. */
function useWheelOf(live: LiveEngine): Turning {
  const turning = useMemo(() => makeTurning(underPointer(live.stand())), [live]);
  useEffect(() => {
    turning.value.setValue(underPointer(live.stand()));
    return live.follow((now) => turning.value.setValue(underPointer(now)));
  }, [live, turning]);
  return turning;
}

/** The ring under the pointer, close up: where the eye reads it. */
export function RingCloseUp({ live, width }: { readonly live: LiveEngine; readonly width: number }) {
  const { ring, rotation } = live.engine;
  return (
    <View testID="ring-close-up" style={{ pointerEvents: 'none' }}>
      <SlideRule
        ring={ring}
        rotation={rotation}
        position={0}
        turning={useWheelOf(live)}
        width={width}
        onTurn={() => undefined}
      />
    </View>
  );
}

/** The degree wheel on the practice engine. Turned by finger, mouse or mouse wheel. */
export function WheelPicture({ live, size, hands }: WheelPictureProps) {
  const { ring, rings = [], rotation } = live.engine;
  const sign = runningSign(rotation);
  const turning = useWheelOf(live);
  const stand = useRested(live);
  const host = useRef<View>(null);
  // The page itself must not scroll while the mouse wheel turns the engine, and React hears such events too late to prevent that.
  useEffect(() => {
    const node = host.current as unknown as HTMLElement | null;
    if (!node?.addEventListener) return;
    const turn = (event: WheelEvent): void => {
      event.preventDefault();
      turnBy(live, hands, event.deltaY * PER_PIXEL, false);
    };
    node.addEventListener('wheel', turn, { passive: false });
    return () => node.removeEventListener('wheel', turn);
  }, [hands, live]);
  const at = underPointer(stand);
  const reading = formatReading(readingAt(ring, Math.round(at * 4) / 4));
  const what = ring.ring === 'rim' ? 'Rim of the balancer with a tape on it' : 'Degree wheel';
  return (
    <View className="items-center">
      <View ref={host} testID="practice-wheel" {...useGrip(live, hands, sign, size)}>
        <DegreeWheel
          ring={ring}
          others={rings}
          rotation={rotation}
          position={at}
          turning={turning}
          size={size}
          turn="forward"
          figure=""
          word=""
          description={`${what}, the engine runs ${rotation}. Under the pointer: ${reading}.`}
        />
      </View>
    </View>
  );
}

/** A finger that goes round the middle of the wheel turns it by the same angle. */
function useGrip(live: LiveEngine, hands: HandsOn, sign: 1 | -1, size: number): ViewProps {
  const last = useRef<number | null>(null);
  const middle = useRef({ x: 0, y: 0 });
  const angleOf = ({ nativeEvent }: PointerEvent): number =>
    (Math.atan2(nativeEvent.clientX - middle.current.x, middle.current.y - nativeEvent.clientY) * 180) / Math.PI;
  const release = (): void => {
    last.current = null;
  };
  return {
    onPointerDown: (event) => {
      const box = (event.currentTarget as unknown as HTMLElement).getBoundingClientRect();
      middle.current = { x: box.left + size / 2, y: box.top + size / 2 };
      last.current = angleOf(event);
    },
    onPointerMove: (event) => {
      if (last.current === null) return;
      const angle = angleOf(event);
      turnBy(live, hands, sign * wrap180(angle - last.current), false);
      last.current = angle;
    },
    onPointerUp: release,
    onPointerLeave: release,
    onPointerCancel: release,
    style: GRIP_STYLE,
  };
}
