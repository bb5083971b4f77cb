export { BuildList as default } from '@/features/builds/build-list';
