import { useCallback, useEffect, useState } from 'react';
import type { Hardware, Setting } from '@yosoku/core/timing-set/hardware';
import { Refusal, api, ask } from '@/sync/api';

/** A piece on the shelf of the shop, and what it gave on its engines so far. */
export interface Piece {
  readonly id: string;
  readonly name: string;
  readonly hardware: Hardware;
  readonly experience: readonly {
    readonly buildId: string;
    readonly from: Setting;
    readonly to: Setting;
    readonly gave: number;
    readonly standard: number;
    readonly took?: number | undefined;
  }[];
}

export type Shelf = readonly Piece[] | 'asking' | 'unreachable';

const UNREACHABLE = 'The server cannot be reached. Nothing was changed on the shelf; try again.';

/** The shelf as the server has it, and how to put things on it. Each answers with what went wrong, or null. */
export function useShelf() {
  const [shelf, setShelf] = useState<Shelf>('asking');
  const fetchShelf = useCallback(
    () =>
      ask(api.hardware.$get())
        .then(({ pieces }) => setShelf(pieces))
        .catch(() => setShelf('unreachable')),
    [],
  );
  useEffect(() => {
    void fetchShelf();
  }, [fetchShelf]);
  const change = async (work: () => Promise<unknown>): Promise<string | null> => {
    try {
      await work();
    } catch (error) {
      return error instanceof Refusal ? error.detail : UNREACHABLE;
    }
    await fetchShelf();
    return null;
  };
  return {
    shelf,
    keep: (piece: Omit<Piece, 'experience'>) => change(() => ask(api.hardware.$put({ json: piece }))),
    takeOff: (id: string) => change(() => ask(api.hardware[':id'].$delete({ param: { id } }))),
  };
}
