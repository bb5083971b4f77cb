/** The stations of the work, in the order of the trade, as screens call them. */
export const STATION_NAMES = {
  prepare: 'Prepare',
  zero: 'Zero',
  card: 'Card',
  read: 'Read',
  decide: 'Decide',
  move: 'Move',
  prove: 'Prove',
  clear: 'Clear',
  rockers: 'Rockers',
  lash: 'Lash',
  sign: 'Sign',
} as const;
export type Station = keyof typeof STATION_NAMES;
export const STATIONS = Object.keys(STATION_NAMES) as [Station, ...Station[]];
