import type { Entry } from './entry';
import { groupBy } from './links';

/** Did an entry come after another? By their places in the logbook; what has none yet waits to be sent, and comes last; else by their ids, which grow with time. */
function isLater(entry: Entry, than: Entry): boolean {
  if (entry.seq !== undefined && than.seq !== undefined) return entry.seq > than.seq;
  if (entry.seq !== undefined || than.seq !== undefined) return entry.seq === undefined;
  return entry.id > than.id;
}

/** Entries that came while the build was signed: they change nothing of what was signed. */
export function afterSignature(entries: readonly Entry[]): ReadonlySet<string> {
  const signed = entries.filter((entry) => entry.kind === 'build.signed');
  if (signed.length === 0) return new Set();
  const reopened = entries.filter((entry) => entry.kind === 'build.reopened');
  const late = new Set<string>();
  for (const signature of signed) {
    if (late.has(signature.id)) continue;
    const again = reopened.find(({ body }) => body.signature === signature.id);
    for (const entry of entries)
      if (entry !== again && isLater(entry, signature) && (!again || isLater(again, entry))) late.add(entry.id);
  }
  return late;
}

/** A void can itself be voided. Two that void each other, which only a hand-made file could hold, leave both standing. */
export function findVoided(entries: readonly Entry[]): ReadonlyMap<string, string> {
  const voids = entries.filter((entry) => entry.kind === 'entry.voided');
  const naming = groupBy(voids, (entry) => entry.body.voids);
  const settled = new Map<string, boolean>();
  const isVoid = (id: string, asking: ReadonlySet<string>): boolean => {
    const known = settled.get(id);
    if (known !== undefined) return known;
    if (asking.has(id)) return false;
    const deeper = new Set(asking).add(id);
    const result = (naming.get(id) ?? []).some((entry) => !isVoid(entry.id, deeper));
    settled.set(id, result);
    return result;
  };
  const voided = new Map<string, string>();
  for (const [id, by] of naming) if (isVoid(id, new Set())) voided.set(id, by[0]?.body.reason ?? 'Undone.');
  return voided;
}
