/** Which way the crank runs, seen from the wheel's side. */
export type Rotation = 'clockwise' | 'counter-clockwise';
