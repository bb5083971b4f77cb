import { useWindowDimensions } from 'react-native';
import { useWide } from '@/ui/layout';

const RAIL_AND_SHEET = 196 + 348;
const PADDING = 52;
const WIDEST = 760;

/** Header, stations, the reading pad and three lines of sentence, on a phone. */
const AROUND_THE_WHEEL = 90 + 366 + 110;
const SMALLEST_WHEEL = 210;
const WIDE_WHEEL = 400;

/**
 * How large the wheel can be so that the pad and the sentence stay in sight, in pixels.
 * @param besides height of what else a station shows above it on a phone.
 */
export function useWheelSize(besides = 0): number {
  const { width, height } = useWindowDimensions();
  const room = height - AROUND_THE_WHEEL - besides;
  return useWide() ? WIDE_WHEEL : Math.min(width - 60, 330, Math.max(SMALLEST_WHEEL, room));
}

/** Room for a station's contents, in pixels. */
export function useStationWidth(): number {
  const { width } = useWindowDimensions();
  return useWide() ? Math.min(WIDEST, width - RAIL_AND_SHEET - PADDING) : width;
}
