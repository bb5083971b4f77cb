import { screen } from '@testing-library/react-native';
import { book } from '@yosoku/core/testing/book';
import { openStation } from '@/testing/open-station';
import { CardStation } from './card-station';

test('what follows from the card stands there while it is typed, before it is saved', async () => {
  const here = await openStation('card', CardStation, book().entries);
  await here.type('card-centreline', '106.5');
  await here.type('card-lsa', '110');
  expect(here.words()).toMatch(/Ground-in advance/);
  expect(here.entries().some(({ kind }) => kind === 'card.entered')).toBe(false);
});

test('an empty card is refused with the way out', async () => {
  const here = await openStation('card', CardStation, book().entries);
  const before = here.entries().length;
  await here.press('card-save');
  expect(screen.getByTestId('card-empty')).toHaveTextContent(/The card is empty\./);
  expect(here.entries()).toHaveLength(before);
});

test('a figure that no cam has names its field, and nothing typed is lost', async () => {
  const here = await openStation('card', CardStation, book().entries);
  await here.type('card-centreline', '400');
  await here.press('card-save');
  expect(here.words()).toMatch(/400 cannot be an intake centreline: expected 1 to 179\./);
  expect(screen.getByTestId('card-centreline').props.value).toBe('400');
  expect(here.entries().some(({ kind }) => kind === 'card.entered')).toBe(false);
});

test('saved, card and target are two facts of the logbook, in the figures that were typed', async () => {
  const here = await openStation('card', CardStation, book().entries);
  await here.type('card-centreline', '106.5');
  await here.press('limit-2');
  await here.press('card-save');
  const of = (kind: string) => here.entries().findLast((entry) => entry.kind === kind)?.body;
  expect(of('card.entered')).toMatchObject({ replaces: null, intake: { centreline: 106.5 } });
  expect(of('target.set')).toMatchObject({ target: { kind: 'card' }, limit: 2 });
});

test('a card that contradicts itself says which figures, and what they would agree with', async () => {
  const here = await openStation('card', CardStation, book().entries);
  await here.type('card-centreline', '106');
  await here.type('card-ex centreline', '112');
  await here.type('card-lsa', '113');
  expect(screen.getByTestId('contradiction')).toHaveTextContent(/make an LSA of 109°, but the card says 113°/);
});

test('a card that is corrected replaces the one before it', async () => {
  const job = book();
  const card = job.card(106);
  const here = await openStation('card', CardStation, job.entries);
  expect(screen.getByTestId('card-centreline').props.value).toBe('106');
  await here.type('card-centreline', '107.5');
  await here.press('card-save');
  expect(here.entries().findLast(({ kind }) => kind === 'card.entered')?.body).toMatchObject({ replaces: card });
});
