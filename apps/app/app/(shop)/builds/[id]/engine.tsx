export { EditEngine as default } from '@/features/forms';
