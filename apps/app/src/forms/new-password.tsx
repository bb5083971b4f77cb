import { useEffect, useState } from 'react';
import { api, ask } from '@/sync/api';
import { TextField } from '@/ui/text-field';

interface NewPasswordProps {
  readonly testID: string;
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  /** Of the shop and the builder: what a guesser tries first. */
  readonly names: readonly string[];
  readonly error: string | undefined;
}

/** Asked when nothing has been typed for so long, ms. */
const QUIET_MS = 350;
const ADVICE = 'At least 10 characters. A short sentence of your own is good.';

/** A field for a new password, which says while it is typed whether it will do and, if not, why. */
export function NewPassword({ testID, label, value, onChange, names, error }: NewPasswordProps) {
  const [verdict, setVerdict] = useState<{ readonly of: string; readonly trouble: string | null } | null>(null);
  const joined = names.join('\n');
  useEffect(() => {
    if (value === '') return;
    let over = false;
    const timer = setTimeout(() => {
      const named = joined.split('\n').filter(Boolean);
      ask(api.password.$post({ json: { password: value, names: named } })).then(
        ({ trouble }) => over || setVerdict({ of: value, trouble }),
        () => undefined,
      );
    }, QUIET_MS);
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [value, joined]);
  const known = value !== '' && verdict?.of === value ? verdict : null;
  return (
    <TextField
      testID={testID}
      label={label}
      value={value}
      onChange={onChange}
      secureTextEntry
      autoComplete="new-password"
      hint={known ? (known.trouble === null ? 'This one is good.' : undefined) : ADVICE}
      error={known?.trouble ?? error}
    />
  );
}
