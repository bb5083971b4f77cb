export { EditEngine as default } from '@/features/builds/edit-engine';
