export { EditEngine as default } from '@/pieces/forms';
