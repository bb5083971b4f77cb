import { useCallback, useMemo } from 'react';
import { useStore } from 'react-redux';
import {
  type WheelReading,
  type WheelRing,
  type WheelSide,
  RINGS,
  readingAt,
  ringWords,
  ringPosition,
} from '@yosoku/core/crank/wheel';
import { useStation } from '@/logbook/station';
import { useTurning } from '@/pictures/turning';
import { type Draft, draftDone, drafted } from '@/store/drafts-slice';
import { type RootState, useAppDispatch, useAppSelector } from '@/store/store';
import { figureOfReading } from './figure';
import { type PadKey, type ReadingDraft, pressKey, readDraft, toDraft } from './reading-draft';

const NUDGE = 0.25;

function draftOf(kept: Draft | undefined, ring: WheelRing): ReadingDraft {
  return { text: kept?.text ?? '', side: RINGS[ring.ring].sides.find((each) => each === kept?.side) };
}

/**
 * The reading being typed at one place of the work. Kept on the device key by key, so that a reload loses nothing.
 * @param use what is read, like "events": the ring of the wheel that it is read on is remembered for each.
 * @param rest ring position (crank degrees) that the wheel rests at while nothing is typed.
 */
export function useReadingEntry(place: string, use: string, rest: number) {
  const dispatch = useAppDispatch();
  const { build, zero } = useStation().report;
  const chosenAt = `${build.id}/ring/${use}`;
  const chosen = useAppSelector((state) => state.drafts[chosenAt]?.ring);
  const ring = zero.rings.find((each) => ringWords(each) === chosen) ?? zero.ring;
  const kept = useAppSelector((state) => state.drafts[place]);
  const draft = useMemo(() => draftOf(kept, ring), [kept, ring]);
  const store = useStore<RootState>();
  /** As it stands at this moment: a key that comes before the screen has followed must not undo the one before. */
  const now = (): ReadingDraft => draftOf(store.getState().drafts[place], ring);
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
    ring,
    /** The other numbers of the wheel. */
    otherRings: zero.rings.filter((each) => each !== ring),
    rings: zero.rings,
    /** What was typed stays as it stands, and is then read on the other numbers. */
    chooseRing: (of: WheelRing) => dispatch(drafted({ place: chosenAt, draft: { ring: ringWords(of) } })),
    type: (text: string) => change({ ...now(), text }),
    press: (key: PadKey) => change({ ...now(), text: pressKey(now().text, key) }),
    chooseSide: (side: WheelSide) => change({ ...now(), side }),
    /** What is typed at this moment. */
    reading: () => readDraft(ring, now()),
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
export function wholeReading(entry: ReadingEntry): WheelReading | null {
  const typed = entry.reading();
  return typed.state === 'whole' ? typed.reading : null;
}
