import { useEffect, useMemo, useState } from 'react';
import type { BodyOf, Described } from '@yosoku/core/record/entry';
import { useAppSelector } from '@/store/store';
import { api, ask } from '@/sync/api';

export type CardOfShop = Omit<BodyOf<'card.entered'>, 'replaces'>;
export type WheelOfShop = Pick<Described, 'wheel' | 'rings' | 'instruments'>;

interface Shelves {
  readonly cards: readonly CardOfShop[];
  readonly wheels: readonly WheelOfShop[];
}

const NOTHING: Shelves = { cards: [], wheels: [] };

/** Cards and wheels that the shop has used, as the server knows them; without a network those of the logbooks on this device. */
export function useShelves(): Shelves {
  const known = useAppSelector((state) => state.logbook.known);
  const [fetched, setFetched] = useState<Shelves | null>(null);
  useEffect(() => {
    let gone = false;
    ask(api.shelves.$get()).then(
      (shelves) => {
        if (!gone) setFetched(shelves);
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, []);
  return useMemo(() => {
    if (fetched) return fetched;
    const cards = new Map<string, CardOfShop>();
    for (const entry of Object.values(known).flat())
      if (entry.kind === 'card.entered' && entry.body.name !== undefined) {
        const { replaces: _replaces, ...card } = entry.body;
        cards.set(entry.body.name, card);
      }
    return cards.size > 0 ? { ...NOTHING, cards: [...cards.values()] } : NOTHING;
  }, [fetched, known]);
}

/** Letters that it takes before anything is offered, and most that is. */
const LETTERS = 2;
const MOST = 5;

/** Those whose name holds what was typed, from the second letter on, but for one that is called just that. */
export function offered<T extends { readonly name?: string | undefined }>(
  all: readonly T[],
  typed: string,
): readonly T[] {
  const wanted = typed.trim().toLowerCase();
  if (wanted.length < LETTERS) return [];
  return all
    .filter(({ name = '' }) => name.toLowerCase().includes(wanted) && name.toLowerCase() !== wanted)
    .slice(0, MOST);
}
