import { useCallback, useEffect, useState } from 'react';
import { api, ask } from './api';

/** A screen across the shop, and the build that it shows. */
interface ShopBoard {
  readonly id: string;
  readonly name: string;
  readonly buildId: string | null;
  readonly buildName: string | null;
}

/** The boards of the shop, and how to ask for them again. */
export function useBoards(): {
  readonly boards: readonly ShopBoard[] | 'loading' | 'unreachable';
  readonly again: () => void;
} {
  const [boards, setBoards] = useState<readonly ShopBoard[] | 'loading' | 'unreachable'>('loading');
  const again = useCallback(() => {
    ask(api.boards.$get()).then(
      (answer) => setBoards(answer.boards),
      () => setBoards('unreachable'),
    );
  }, []);
  useEffect(again, [again]);
  return { boards, again };
}
