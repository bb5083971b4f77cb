import { useWindowDimensions } from 'react-native';

/** From here on the parts of a station stand side by side. */
const WIDE_FROM = 1000;

/** Is there room for stations, picture and sheet side by side? */
export const useWide = (): boolean => useWindowDimensions().width >= WIDE_FROM;
