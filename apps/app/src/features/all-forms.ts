/** The screens that are forms, with the library that carries them: one piece, fetched when the first of them is opened (see `forms.tsx`). */
export { NewBuild } from './builds/new-build';
export { EditEngine } from './builds/edit-engine';
export { CardStation } from './card/card-station';
