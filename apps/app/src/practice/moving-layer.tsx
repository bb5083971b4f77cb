import { type ReactNode, useEffect, useRef } from 'react';
import { View, type ViewStyle } from 'react-native';
import type { Stand } from '@yosoku/core/simulation/whole-engine';
import type { LiveEngine } from './live-engine';

/** Where a part stands: pixels and degrees clockwise, from where it was drawn. */
export interface Move {
  readonly x?: number;
  readonly y?: number;
  readonly turn?: number;
  /** How wide it is drawn: 1 as it is. */
  readonly stretch?: number;
}

const cssOf = ({ x = 0, y = 0, turn, stretch }: Move): string =>
  `translate(${x}px,${y}px)${turn === undefined ? '' : ` rotate(${turn}deg)`}${stretch === undefined ? '' : ` scaleX(${stretch})`}`;

interface MovingLayerProps {
  readonly live: LiveEngine;
  /** Where its middle lies, pixels. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly move: (stand: Stand) => Move;
  readonly testID: string;
  readonly children: ReactNode;
}

// A layer of its own for the browser: moved by it, not painted anew.
const OWN_LAYER = { willChange: 'transform' } as unknown as ViewStyle;

/**
 * A part of a picture that follows the engine frame by frame. It is drawn once and then only moved, by one change of its style a frame and
 * without React: some twenty parts move at once on a slow phone.
 */
export function MovingLayer({ live, x, y, width, height, move, testID, children }: MovingLayerProps) {
  const part = useRef<View>(null);
  useEffect(() => {
    const node = part.current as unknown as HTMLElement | null;
    if (!node) return;
    const put = (stand: Stand): void => {
      node.style.transform = cssOf(move(stand));
    };
    put(live.stand());
    return live.follow(put);
  }, [live, move]);
  return (
    <View
      ref={part}
      testID={testID}
      style={[
        { position: 'absolute', left: x - width / 2, top: y - height / 2, width, height, pointerEvents: 'none' },
        OWN_LAYER,
      ]}
    >
      {children}
    </View>
  );
}
