/** The practice engine and its pages: one piece, fetched when the first of them is opened (see `practice-frame.tsx` and `practice-pages.tsx`). */
export { PracticeEngine } from './practice-engine';
export { PracticeList } from './practice-list';
export { PracticeEnd } from './practice-end';
export { openPracticeBox } from './practice-box';
