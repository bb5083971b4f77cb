export { ThisDevice as default } from '@/features/device/this-device';
