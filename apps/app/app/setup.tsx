export { SetUp as default } from '@/features/sign-in/set-up';
