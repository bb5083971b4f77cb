export { PracticeList as default } from '@/features/practice/practice-pages';
