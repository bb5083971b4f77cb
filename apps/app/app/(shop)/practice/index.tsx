export { PracticeList as default } from '@/practice/practice-pages';
