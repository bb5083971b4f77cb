import { type ChangeEvent, createElement } from 'react';
import { useTheme } from './theme';

interface FileFieldProps {
  readonly label: string;
  readonly testID: string;
  /** MIME types and endings. */
  readonly accept: string;
  readonly onFile: (file: File) => void;
}

/** Words to press that open the machine’s own choice of files. The field itself is there for keyboards and screen readers. */
export function FileField({ label, testID, accept, onFile }: FileFieldProps) {
  const { brass } = useTheme();
  return createElement(
    'label',
    { className: 'file-field', style: { color: brass } },
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
