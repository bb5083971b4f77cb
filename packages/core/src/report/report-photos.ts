import { ENTRIES, type Entry, type EntryOf } from '../record/entry';
import type { Build } from '../record/fold';
import type { Report } from './report-schema';
import type { SheetSection } from './sheet';
import type { SheetRow } from './sheet-rows';

/** A photo as the Report has it. */
export type ReportedPhoto = Report['photos']['taken'][number];
type Subject = EntryOf<'photo.taken'>['body']['shows'];

const TITLES: Readonly<Record<Subject, string>> = {
  card: 'Photo of the card',
  wheel: 'Photo of the wheel',
  tip: 'Photo of the pattern on the tip',
  damage: 'Photo of damage',
  other: 'Photo',
};

/** So many of them are offered, the newest first. */
const MOST_OFFERED = 12;

/** Photos that count, in the order in which they were taken, and what the next one may belong to. */
export function reportPhotos(
  { photos }: Build,
  entries: readonly Entry[],
  sheet: readonly SheetSection[],
): Report['photos'] {
  // Of a long logbook only the end is looked at.
  const newest = lastOf(entries, 2 * MOST_OFFERED, ({ kind }) => ENTRIES[kind].seen);
  const asked = new Set([...newest, ...photos.flatMap(({ body }) => body.of ?? [])]);
  const labels = labelsOf(sheet, asked);
  const showable = newest.flatMap((entry) => {
    const words = labels.get(entry);
    return words === undefined ? [] : [{ entry, words }];
  });
  return {
    taken: photos.map((entry) => reported(entry, labels.get(entry.body.of ?? '') ?? null)),
    of: showable.slice(0, MOST_OFFERED),
  };
}

/** The last line of each entry that is asked for, in words; none of what was undone. From the end, where the newest stand. */
function labelsOf(sheet: readonly SheetSection[], asked: Set<string>): ReadonlyMap<string, string> {
  const labels = new Map<string, string>();
  for (let section = sheet.length - 1; section >= 0 && asked.size > 0; section -= 1) {
    const rows = sheet[section]?.rows ?? [];
    for (let at = rows.length - 1; at >= 0 && asked.size > 0; at -= 1) {
      const row = rows[at];
      if (!row?.entry || !asked.delete(row.entry) || row.standing === 'voided') continue;
      labels.set(row.entry, row.value === '' ? row.label : `${row.label}: ${row.value}`);
    }
  }
  return labels;
}

/** The ids of the last entries that fit, the newest first. */
function lastOf(entries: readonly Entry[], most: number, fits: (entry: Entry) => boolean): string[] {
  const found: string[] = [];
  for (let at = entries.length - 1; at >= 0 && found.length < most; at -= 1) {
    const entry = entries[at];
    if (entry && fits(entry)) found.push(entry.id);
  }
  return found;
}

const reported = ({ id, takenAt, body }: EntryOf<'photo.taken'>, beside: string | null): ReportedPhoto => ({
  entry: id,
  picture: body.picture,
  width: body.width,
  height: body.height,
  bytes: body.bytes,
  shows: body.shows,
  of: body.of,
  title: TITLES[body.shows],
  beside,
  words: body.words ?? null,
  takenAt,
});

/** A sheet with its photos: each under the line that it belongs to, those of the card under the card, the others at the end. Photos that were taken out stay away. */
export function withPhotos(sheet: readonly SheetSection[], { taken }: Report['photos']): SheetSection[] {
  if (taken.length === 0) return [...sheet];
  const left = new Set(taken);
  const take = (fits: (photo: ReportedPhoto) => boolean): SheetRow[] =>
    [...left].filter(fits).map((photo) => {
      left.delete(photo);
      return {
        entry: photo.entry,
        label: photo.words ?? photo.title,
        value: '',
        standing: 'counts',
        note: null,
        photo,
      };
    });
  const sections = sheet.map(({ title, rows }) => ({
    title,
    rows: rows.flatMap((row) => [row, ...(row.entry === null ? [] : take(({ of }) => of === row.entry))]),
  }));
  const cards = take(({ shows }) => shows === 'card');
  const card = sections.find(({ title }) => title === 'Card');
  card?.rows.push(...cards);
  const others = [...(card ? [] : cards), ...take(() => true)];
  return others.length === 0 ? sections : [...sections, { title: 'Photos', rows: others }];
}
