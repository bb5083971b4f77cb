export { UseCode as default } from '@/features/sign-in/use-code';
