/** The screens that know what hardware is: one piece, fetched when the first of them is opened (see `hardware-screens.tsx`). */
export { MoveStation } from '../move/move-station';
export { ShelfPage } from './shelf-page';
