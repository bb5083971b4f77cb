export { NewBuild as default } from '@/pieces/forms';
