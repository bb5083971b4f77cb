import { type ChangeEvent, createElement } from 'react';
import { useTheme } from './theme';

interface FileFieldProps {
  readonly label: string;
  readonly testID: string;
  /** MIME types and endings. */
  readonly accept: string;
  /** The one thing to press on a screen, or words among others. */
  readonly look?: 'primary' | 'words';
  readonly onFile: (file: File) => void;
}

/** Words to press that open the machine’s own choice of files. The field itself is there for keyboards and screen readers. */
export function FileField({ label, testID, accept, look = 'words', onFile }: FileFieldProps) {
  const { brass, onBrass } = useTheme();
  return createElement(
    'label',
    look === 'primary'
      ? { className: 'file-field file-field-primary', style: { color: onBrass, backgroundColor: brass } }
      : { className: 'file-field', style: { color: brass } },
    label,
    createElement('input', {
      type: 'file',
      accept,
      'data-testid': testID,
      onChange: ({ target }: ChangeEvent<HTMLInputElement>) => {
        const [file] = target.files ?? [];
        // The same file again is a new choice: it may have been put right meanwhile.
        if (file) onFile(file);
        target.value = '';
      },
    }),
  );
}
