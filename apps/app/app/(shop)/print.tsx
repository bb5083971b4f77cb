export { PrintAnywhere as default } from '@/pieces/print';
