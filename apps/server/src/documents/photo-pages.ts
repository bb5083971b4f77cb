import type { Content } from 'pdfmake/interfaces';
import type { Report } from '@yosoku/core/report/report';
import { day } from './day';

/** On paper; the rest are in the app and in the file. Six on a page. */
const MOST_PRINTED = 24;
const PER_PAGE = 6;
/** Room for one, points. */
const FIT: [number, number] = [252, 200];

type Photo = Report['photos']['taken'][number];

/** The photos that are printed: the newest. */
export const printedPhotos = ({ photos }: Pick<Report, 'photos'>): readonly Photo[] =>
  photos.taken.slice(-MOST_PRINTED);

/**
 * Photos on pages of their own, two beside each other.
 * @param pictures their bytes by fingerprint; what has not come yet is said in its place.
 */
export function photoPages(report: Pick<Report, 'photos'>, pictures: ReadonlyMap<string, Uint8Array>): Content[] {
  const printed = printedPhotos(report);
  const left = report.photos.taken.length - printed.length;
  const pages: Content[] = [];
  for (let from = 0; from < printed.length; from += PER_PAGE) {
    const rows: Content[] = [];
    for (let at = from; at < Math.min(from + PER_PAGE, printed.length); at += 2)
      rows.push({
        unbreakable: true,
        columnGap: 16,
        columns: printed.slice(at, at + 2).map((photo) => ({ width: FIT[0], stack: onePhoto(photo, pictures) })),
      });
    pages.push({ text: 'Photos', style: 'heading', pageBreak: 'before' }, ...rows);
  }
  if (left > 0) pages.push({ text: `${left} earlier photos are in the app and in the file.`, style: 'soft' });
  return pages;
}

function onePhoto(photo: Photo, pictures: ReadonlyMap<string, Uint8Array>): Content[] {
  const bytes = pictures.get(photo.picture);
  const under = [photo.words === null ? null : photo.title, photo.beside, day(photo.takenAt)];
  return [
    bytes
      ? {
          image: `data:image/jpeg;base64,${Buffer.from(bytes).toString('base64')}`,
          fit: FIT,
          margin: [0, 4, 0, 2],
        }
      : { text: 'This picture has not been sent yet by the device that took it.', style: 'soft', margin: [0, 4, 0, 2] },
    { text: photo.words ?? photo.title, bold: true },
    { text: under.filter((each) => each !== null).join(' · '), style: 'soft', margin: [0, 0, 0, 6] },
  ];
}
