import { useCallback, useMemo } from 'react';
import {
  type WheelReading,
  type WheelRing,
  type WheelSide,
  RINGS,
  readingAt,
  ringPosition,
} from '@yosoku/core/crank/wheel';
import { useTurning } from '@/pictures/turning';
import { draftDone, drafted } from '@/store/drafts-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { figureOfReading } from './figure';
import { type PadKey, type ReadingDraft, pressKey, readDraft, toDraft } from './reading-draft';

const NUDGE = 0.25;

/**
 * The reading being typed at one place of the work. Kept on the device key by key, so that a reload loses nothing.
 * @param rest ring position (crank degrees) that the wheel rests at while nothing is typed.
 */
export function useReadingEntry(place: string, ring: WheelRing, rest: number) {
  const dispatch = useAppDispatch();
  const kept = useAppSelector((state) => state.drafts[place]);
  const draft = useMemo((): ReadingDraft => {
    const side = RINGS[ring.ring].sides.find((each) => each === kept?.side);
    return { text: kept?.text ?? '', side };
  }, [kept, ring]);
  const state = readDraft(ring, draft);
  const position = state.state === 'whole' ? ringPosition(state.reading) : rest;
  const turning = useTurning(position);

  const change = useCallback(
    ({ text, side }: ReadingDraft): void => {
      dispatch(drafted({ place, draft: { text, ...(side ? { side } : {}) } }));
    },
    [dispatch, place],
  );
  const turnTo = (to: number): void => change(toDraft(readingAt(ring, to)));

  return {
    draft,
    state,
    position,
    sides: RINGS[ring.ring].sides,
    type: (text: string) => change({ ...draft, text }),
    press: (key: PadKey) => change({ ...draft, text: pressKey(draft.text, key) }),
    chooseSide: (side: WheelSide) => change({ ...draft, side }),
    turnTo,
    turning,
    /** What stands in the middle of the wheel when it is turned to a ring position. */
    figureAt: useCallback((at: number) => figureOfReading(readingAt(ring, at)), [ring]),
    nudge: (quarters: number) => turnTo(position + quarters * NUDGE),

    clear: () => dispatch(draftDone(place)),
  };
}

export type ReadingEntry = ReturnType<typeof useReadingEntry>;

/** The reading, when it is whole. */
export const wholeReading = (entry: ReadingEntry): WheelReading | null =>
  entry.state.state === 'whole' ? entry.state.reading : null;
