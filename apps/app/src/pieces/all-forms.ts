/** The screens that are forms, with the library that carries them: one piece, fetched when the first of them is opened (see `forms.tsx`). */
export { NewBuild } from '@/features/builds/new-build';
export { EditEngine } from '@/features/builds/edit-engine';
export { CardStation } from '@/features/card/card-station';
