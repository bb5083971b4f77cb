import { type PadKey, pressKey, readDraft, toDraft } from './reading-draft';

const press = (...keys: PadKey[]): string => keys.reduce(pressKey, '');

test('the keypad writes what is read off a wheel', () => {
  expect(press('2', '6', '½')).toBe('26.5');
  expect(press('2', '6', '½', '¼')).toBe('26.25');
  expect(press('2', '6', '½', '½')).toBe('26');
  expect(press('½')).toBe('0.5');
  expect(press('1', '.', '5', '.', 'back')).toBe('1.');
  expect(press('0', '7')).toBe('7');
});

test.each([
  [{ ring: '0-180' }, '', undefined, 'empty'],
  [{ ring: '0-180' }, '26.5', undefined, 'sideless'],
  [{ ring: '0-180' }, '26.5', 'after', 'whole'],
  [{ ring: '0-180' }, '181', 'after', 'wrong'],
  [{ ring: '0-90' }, '95', 'before-bdc', 'wrong'],
  [{ ring: '0-360', sense: 'falling' }, '360', undefined, 'whole'],
  [{ ring: '0-360', sense: 'rising' }, '361', undefined, 'wrong'],
  [{ ring: '0-360', sense: 'rising' }, '-1', undefined, 'wrong'],
  [{ ring: '0-360', sense: 'rising' }, '1.2345', undefined, 'wrong'],
  [{ ring: 'rim', round: 565, unit: 'in' }, '2.5', 'before', 'whole'],
  [{ ring: 'rim', round: 565, unit: 'in' }, '12', 'before', 'wrong'],
] as const)('on %j “%s” %s is %s', (ring, text, side, state) => {
  expect(readDraft(ring, { text, side }).state).toBe(state);
});

test('a reading that was turned to can be typed on', () => {
  const reading = { ring: '0-180', shows: 12.25, side: 'before' } as const;
  expect(readDraft({ ring: '0-180' }, toDraft(reading))).toEqual({ state: 'whole', reading });
});
