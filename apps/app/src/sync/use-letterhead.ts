import { useCallback, useEffect, useState } from 'react';
import type { LOGO_KINDS } from '@yosoku/core/paper/letterhead';
import { LONG_PATIENCE_MS, api, ask } from './api';

/** The head of the shop’s sheets, as it is at the server. */
interface Letterhead {
  /** Lines under the shop’s name. */
  readonly words: string;
  readonly logo: {
    readonly kind: (typeof LOGO_KINDS)[number];
    readonly width: number;
    readonly height: number;
  } | null;
}

/** The letterhead and where its logo is found now, and how to ask for them again. */
export function useLetterhead(): {
  readonly letterhead: Letterhead | 'loading' | 'unreachable';
  readonly address: string;
  readonly again: () => void;
} {
  const [letterhead, setLetterhead] = useState<Letterhead | 'loading' | 'unreachable'>('loading');
  const [asked, setAsked] = useState(0);
  const again = useCallback(() => {
    ask(api.shop.letterhead.$get()).then(
      (answer) => {
        setLetterhead(answer);
        setAsked((before) => before + 1);
      },
      () => setLetterhead('unreachable'),
    );
  }, []);
  useEffect(again, [again]);
  // Another address each time: a browser does not fetch a picture again that it has.
  return { letterhead, address: `${api.shop.logo.$url().pathname}?${asked}`, again };
}

/** Sends a logo as it is. Throws `Refusal` or `Unreachable`. */
export const sendLogo = (file: Blob): Promise<unknown> =>
  ask(fetch(api.shop.logo.$url(), { method: 'PUT', body: file, signal: AbortSignal.timeout(LONG_PATIENCE_MS) }));
