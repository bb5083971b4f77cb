/** The stations of the work, in the order of the trade. */
export const STATIONS = [
  'prepare',
  'zero',
  'card',
  'read',
  'decide',
  'move',
  'prove',
  'clear',
  'rockers',
  'lash',
  'sign',
] as const;
export type Station = (typeof STATIONS)[number];
