import { useWindowDimensions } from 'react-native';
import { useWide } from '@/ui/layout';

const RAIL_AND_SHEET = 196 + 348;
const PADDING = 52;
const WIDEST = 760;

/** Room for a station's contents, in pixels. */
export function useStationWidth(): number {
  const { width } = useWindowDimensions();
  return useWide() ? Math.min(WIDEST, width - RAIL_AND_SHEET - PADDING) : width;
}
