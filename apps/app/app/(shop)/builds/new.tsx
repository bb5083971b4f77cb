export { NewBuild as default } from '@/features/builds/new-build';
