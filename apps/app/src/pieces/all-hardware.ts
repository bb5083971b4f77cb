/** The screens that know what hardware is: one piece, fetched when the first of them is opened (see `hardware-screens.tsx`). */
export { MoveStation } from '@/features/move/move-station';
export { ShelfPage } from '@/features/hardware/shelf-page';
