import { STATIONS } from '@yosoku/core/record/entries/stations';
import { isHandsOn, isUnattended } from './hands-on';

test('every station but those that are read or written at a table is one with hands on the engine', () => {
  const atTheTable = STATIONS.filter((station) => !isHandsOn(`/builds/b17d/${station}`));
  expect(atTheTable).toEqual(['prepare', 'card', 'decide', 'sign']);
  expect(isHandsOn('/builds/b17d/trace')).toBe(true);
  expect(isHandsOn('/')).toBe(false);
});

test('only the board has nobody in front of it', () => {
  expect(isUnattended('/board')).toBe(true);
  expect(isUnattended('/builds/b17d/sheet')).toBe(false);
});
