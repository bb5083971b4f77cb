/**
 * What follows from parts that hardly ever change, kept with an object for as long as that lives, and made anew when any of the parts is another. A logbook is
 * worked out at every reading: with this the work begins where it left off, and what is made is the same as it would be from the beginning.
 * @returns what was made of the same parts before, else what `make` makes of them. `from` names everything that `make` uses beside `holder`.
 * @example
 *   const squared = remember<{ readonly value: number }, number>();
 *   squared(one, [one.value], () => one.value ** 2);
 */
export function remember<Holder extends object, Made>() {
  const kept = new WeakMap<Holder, { readonly from: readonly unknown[]; readonly made: Made }>();
  return (holder: Holder, from: readonly unknown[], make: () => Made): Made => {
    const before = kept.get(holder);
    if (before && isSame(before.from, from)) return before.made;
    const made = make();
    kept.set(holder, { from, made });
    return made;
  };
}

function isSame(before: readonly unknown[], now: readonly unknown[]): boolean {
  if (before.length !== now.length) return false;
  for (let at = 0; at < now.length; at += 1) if (!Object.is(before[at], now[at])) return false;
  return true;
}
