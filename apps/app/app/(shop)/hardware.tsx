export { ShelfPage as default } from '@/features/hardware/shelf-page';
