import { useWindowDimensions } from 'react-native';

/** From here on the parts of a station stand side by side. */
const WIDE_FROM = 1000;

/** A phone at 200 % zoom has less than this; the same figure as `roomy` in tailwind.config.js. */
const ROOMY_FROM = 300;

/** Do a few short labels fit beside each other? */
export const useRoomy = (): boolean => useWindowDimensions().width >= ROOMY_FROM;

/** Is there room for stations, picture and sheet side by side? */
export const useWide = (): boolean => useWindowDimensions().width >= WIDE_FROM;
