import { strandedBetween } from './pieces';

test('pieces of the running version stay while it is replaced, and go with the next', () => {
  const [first, second, third] = [
    ['a1', 'b1'],
    ['a1', 'b2'],
    ['a3', 'b3'],
  ] as const;
  // The first to keep a list finds pieces of who knows which version.
  let there = ['old', ...first, ...second];
  expect(strandedBetween(there, [], second)).toEqual([]);
  there = [...there, ...third];
  const stranded = strandedBetween(there, second, third);
  expect(stranded).toEqual(['old', 'b1']);
  expect(stranded).not.toContain('b2');
});
