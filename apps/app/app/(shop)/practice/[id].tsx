export { PracticeEnd as default } from '@/practice/practice-pages';
