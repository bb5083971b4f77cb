export { NewBuild as default } from '@/features/forms';
