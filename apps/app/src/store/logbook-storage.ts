import { delMany, get, getMany, setMany } from 'idb-keyval';
import type { Entry } from '@yosoku/core/record/entry';
import type { LogbookState } from './logbook-slice';

/**
 * Logbooks on this device, in parts: a reading that is added to a build writes the last part of that build, and nothing else. Earlier versions kept all of them
 * in one text, which is read still.
 */

const KEY = 'yosoku-logbook';
/** Entries in a part. */
export const PART = 500;
const partKey = (buildId: string, at: number): string => `${KEY}/${buildId}/${at}`;

/** What stands under the key: the lists, and of how many parts each build is. */
interface Index {
  readonly lists: LogbookState['lists'];
  readonly parts: Readonly<Record<string, number>>;
}
type Parts = readonly (readonly Entry[])[];

/** As it was written last; what is the same is not written again. */
let written = new Map<string, Parts>();

const partsOf = (entries: readonly Entry[]): Parts =>
  Array.from({ length: Math.ceil(entries.length / PART) }, (_, at) => entries.slice(at * PART, (at + 1) * PART));
const isSame = (one: readonly Entry[], other: readonly Entry[] | undefined): boolean =>
  one.length === other?.length && one.every((entry, at) => entry === other[at]);

/** What was kept: the text of earlier versions, the logbooks, or nothing. */
export async function readLogbooks(): Promise<string | LogbookState | undefined> {
  const kept = await get<string | Index>(KEY);
  written = new Map();
  if (kept === undefined || typeof kept === 'string') return kept;
  for (const [buildId, count] of Object.entries(kept.parts)) {
    const texts = await getMany<string | undefined>(Array.from({ length: count }, (_, at) => partKey(buildId, at)));
    const parts: Entry[][] = [];
    for (const text of texts) {
      // Two windows may have written beside each other. What comes after a part that is missing or not full is fetched anew: no logbook has a hole.
      if (text === undefined || (parts.at(-1)?.length ?? PART) < PART) break;
      parts.push(JSON.parse(text) as Entry[]);
    }
    written.set(buildId, parts);
  }
  return {
    lists: kept.lists,
    known: Object.fromEntries([...written].map(([buildId, parts]) => [buildId, parts.flat()])),
  };
}

let writing: Promise<void> = Promise.resolve();

/** Writes what has changed since the last time, one writing after the other. Rejects where the device is full. */
export function writeLogbooks(state: LogbookState): Promise<void> {
  writing = writing.catch(() => undefined).then(() => write(state));
  return writing;
}

async function write({ known, lists }: LogbookState): Promise<void> {
  const now = new Map(Object.entries(known).map(([buildId, entries]) => [buildId, partsOf(entries)] as const));
  const changed = [...now].flatMap(([buildId, parts]) =>
    parts.flatMap((part, at) =>
      isSame(part, written.get(buildId)?.[at])
        ? []
        : [[partKey(buildId, at), JSON.stringify(part)] as [string, string]],
    ),
  );
  const gone = [...written].flatMap(([buildId, parts]) =>
    parts.flatMap((_, at) => (at < (now.get(buildId)?.length ?? 0) ? [] : [partKey(buildId, at)])),
  );
  const index: Index = {
    lists,
    parts: Object.fromEntries([...now].map(([buildId, parts]) => [buildId, parts.length])),
  };
  await setMany([...changed, [KEY, index]]);
  await delMany(gone);
  written = now;
}
