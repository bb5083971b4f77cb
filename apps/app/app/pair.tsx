export { Pair as default } from '@/features/phone/pair';
