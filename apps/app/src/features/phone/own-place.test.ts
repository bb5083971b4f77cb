import { ownPlace } from './own-place';

test('only pages of this site are gone on to', () => {
  expect(ownPlace('/builds/0198-7c/read')).toBe('/builds/0198-7c/read');
  for (const at of [
    undefined,
    '',
    'builds',
    '//elsewhere.example',
    'https://elsewhere.example',
    '/a?b',
    '/\\elsewhere',
    'javascript:0',
  ])
    expect(ownPlace(at)).toBe('/');
});
