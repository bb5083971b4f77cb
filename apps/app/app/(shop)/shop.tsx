export { Shop as default } from '@/features/shop/shop';
