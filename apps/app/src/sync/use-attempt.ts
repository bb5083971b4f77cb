import { useState } from 'react';
import { Refusal } from './api';

export interface Trouble {
  readonly message: string;
  /** A word to each field that is wrong. */
  readonly fields: Readonly<Record<string, string>>;
}

/** Does something at the server, and keeps what it said against it. */
export function useAttempt() {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const attempt = async (work: () => Promise<unknown>): Promise<boolean> => {
    setBusy(true);
    setTrouble(null);
    try {
      await work();
      return true;
    } catch (error) {
      setTrouble(
        error instanceof Refusal
          ? {
              message: error.detail,
              fields: Object.fromEntries(error.fields.map(({ field, message }) => [field, message])),
            }
          : { message: 'The server cannot be reached. Check the network and try again.', fields: {} },
      );
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { busy, trouble, attempt };
}
