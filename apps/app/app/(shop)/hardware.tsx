export { ShelfPage as default } from '@/features/hardware/hardware-screens';
