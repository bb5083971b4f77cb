export { ShelfPage as default } from '@/pieces/hardware-screens';
