export { PracticeEnd as default } from '@/features/practice/practice-pages';
