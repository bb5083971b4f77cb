/** What is printed to scale: one piece, fetched when it is opened (see `print.tsx`). */
export { PrintAnywhere, PrintPage } from '@/features/print/print-page';
