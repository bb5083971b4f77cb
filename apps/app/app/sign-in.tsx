export { SignIn as default } from '@/features/sign-in/sign-in';
