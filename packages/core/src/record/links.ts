import type { BodyOf, EntryKind } from './entry';

/** Entries name each other by their ids: what comes after what, what replaces what, in which order they stand. */
type Linked = { readonly id: string; readonly body: BodyOf<EntryKind> };

/**
 * Entries in the order of the chain that their links make. Two devices may each have added a successor to the same entry:
 * then the greater id comes later (ids made by devices grow with time), so that every device sees the same order.
 */
export function inOrder<E extends Linked>(entries: readonly E[], previous: (body: E['body']) => string | null): E[] {
  const known = new Set(entries.map((entry) => entry.id));
  const following = groupBy(entries, (entry) => {
    const link = previous(entry.body);
    return link !== null && known.has(link) && link !== entry.id ? link : null;
  });
  const ordered: E[] = [];
  const waiting: E[] = sortById(following.get(null) ?? []);
  for (let next = waiting.shift(); next; next = waiting.shift()) {
    ordered.push(next);
    waiting.unshift(...sortById(following.get(next.id) ?? []));
  }
  // Links that run in a ring, which only a hand-made file could hold, must not make entries vanish.
  const reached = new Set(ordered);
  return [...ordered, ...sortById(entries.filter((entry) => !reached.has(entry)))];
}

export const lastOf = <E extends Linked>(
  entries: readonly E[],
  previous: (body: E['body']) => string | null,
): E | null => inOrder(entries, previous).at(-1) ?? null;

/** Entries of chains that begin by themselves beside the one that ends in `last`. */
export function besideOf<E extends Linked>(
  entries: readonly E[],
  last: E,
  previous: (body: E['body']) => string | null,
): E[] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const firstOf = (entry: E): E => {
    const passed = new Set<E>();
    let at = entry;
    for (let before: E | undefined = at; before && !passed.has(before); before = byId.get(previous(at.body) ?? '')) {
      passed.add(before);
      at = before;
    }
    return at;
  };
  const own = firstOf(last);
  return entries.filter((entry) => firstOf(entry) !== own);
}

export const sortById = <E extends Linked>(entries: readonly E[]): E[] =>
  [...entries].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));

export function groupBy<T, K>(items: readonly T[], key: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const name = key(item);
    const group = groups.get(name);
    if (group) group.push(item);
    else groups.set(name, [item]);
  }
  return groups;
}

/** The last answer to each question. */
export function lastOfEach<E extends Linked & { readonly body: { readonly replaces: string | null } }, K>(
  entries: readonly E[],
  key: (entry: E) => K,
): ReadonlyMap<K, E> {
  return new Map(
    [...groupBy(entries, key)].flatMap(([name, answers]) => {
      const last = lastOf(answers, (body) => (body as E['body']).replaces);
      return last ? [[name, last] as const] : [];
    }),
  );
}

/** Those that no later one replaces. More than one of a kind: two devices, or a file. */
export function unreplaced<E extends { readonly id: string; readonly body: { readonly replaces: string | null } }>(
  entries: readonly E[],
): E[] {
  const replaced = new Set(entries.map(({ body }) => body.replaces));
  return sortById(entries.filter(({ id }) => !replaced.has(id)));
}
