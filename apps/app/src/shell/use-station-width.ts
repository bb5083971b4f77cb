import { useWindowDimensions } from 'react-native';
import { useWide } from '@/ui/layout';

const RAIL_AND_SHEET = 196 + 348;
const PADDING = 52;
const WIDEST = 760;

/** Header, stations, the instrument’s line, the reading pad and three lines of sentence, on a phone. */
const AROUND_THE_WHEEL = 90 + 48 + 366 + 110;
const SMALLEST_WHEEL = 210;
/** Where fields stand below it, too. */
const SMALLEST_BESIDES = 150;
const WIDE_WHEEL = 400;
/** The same on a wide screen, with two lines of sentence. */
const AROUND_WIDE = 470;

/**
 * How large the wheel can be so that the pad and the sentence stay in sight, in pixels.
 * @param besides height of what else a station shows beside it, like fields to be filled in.
 */
export function useWheelSize(besides = 0): number {
  const { width, height } = useWindowDimensions();
  const room = height - AROUND_THE_WHEEL - besides;
  if (useWide()) return Math.min(WIDE_WHEEL, Math.max(SMALLEST_WHEEL, height - AROUND_WIDE - besides));
  return Math.min(width - 60, 330, Math.max(besides > 0 ? SMALLEST_BESIDES : SMALLEST_WHEEL, room));
}

/** Room for a station's contents, in pixels. */
export function useStationWidth(): number {
  const { width } = useWindowDimensions();
  return useWide() ? Math.min(WIDEST, width - RAIL_AND_SHEET - PADDING) : width;
}
