import { QuietButton } from './buttons';

/** Takes the last thing back; nothing where there is none. */
export const UndoButton = ({ undo }: { readonly undo: (() => void) | null }) =>
  undo ? <QuietButton label="Undo" testID="undo" onPress={undo} /> : null;
