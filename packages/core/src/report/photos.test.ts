import { book, id } from '../testing/book';
import { ENTRIES } from '../record/entry';
import { derive } from './report';
import { reportSchema } from './report-schema';

const PICTURE = 'ab'.repeat(32);
const photo = { picture: PICTURE, width: 2000, height: 1500, bytes: 400_000, shows: 'wheel', of: null } as const;

test('a photo stands under the reading that it shows, one of the card under the card, others at the end; taken out it is gone', () => {
  const job = book();
  const setting = job.proved();
  job.write('card.entered', { replaces: null, intake: { centreline: 107 } });
  const reading = job.reading(setting, id(), 'opening', 64);
  job.write('photo.taken', { ...photo, of: reading });
  job.write('photo.taken', { ...photo, picture: 'cd'.repeat(32), shows: 'card' });
  const damage = job.write('photo.taken', {
    ...photo,
    picture: 'ef'.repeat(32),
    shows: 'damage',
    words: 'Scored journal',
  });

  const report = derive(job.entries);
  if (!report) throw new Error('the logbook says what engine it is');
  expect(reportSchema.safeParse(report).success).toBe(true);
  const rowsOf = (title: string) => report.sheet.find((section) => section.title === title)?.rows ?? [];
  const trial = rowsOf('Trial 1');
  const at = trial.findIndex(({ entry }) => entry === reading);
  expect(trial[at + 1]).toMatchObject({ label: 'Photo of the wheel', photo: { picture: PICTURE, of: reading } });
  expect(report.photos.taken[0]?.beside).toBe(`${trial[at]?.label}: ${trial[at]?.value}`);
  expect(rowsOf('Card').at(-1)).toMatchObject({ label: 'Photo of the card', standing: 'counts' });
  expect(rowsOf('Photos')).toMatchObject([{ label: 'Scored journal', entry: damage }]);
  expect(report.photos.of[0]).toEqual({ entry: reading, words: report.photos.taken[0]?.beside });

  job.write('entry.voided', { voids: damage });
  job.write('entry.voided', { voids: reading });
  const later = derive(job.entries);
  expect(later?.photos.taken).toHaveLength(2);
  expect(later?.sheet.some(({ title }) => title === 'Photos')).toBe(false);
  // The reading is undone; the photo of it still stands where it stood, and is offered no more as a place for another.
  const undone = later?.sheet.flatMap(({ rows }) => rows) ?? [];
  expect(undone[undone.findIndex(({ entry }) => entry === reading) + 1]?.photo?.picture).toBe(PICTURE);
  expect(later?.photos.of.some(({ entry }) => entry === reading)).toBe(false);
});

test.each([
  [{ picture: 'AB'.repeat(32) }, '64 hexadecimal digits'],
  [{ width: 2001 }, 'from 1 to 2000'],
  [{ bytes: 3 * 1024 * 1024 + 1 }, 'at most 3 MB'],
  [{ bytes: 0 }, 'empty'],
  [{ words: ' ' }, 'must not be empty'],
])('what no logbook takes of a photo: %j', (wrong, said) => {
  const read = ENTRIES['photo.taken'].body.safeParse({ ...photo, ...wrong });
  expect(read.error?.issues[0]?.message).toContain(said);
});
