export { BoardPage as default } from '@/features/board/board-page';
