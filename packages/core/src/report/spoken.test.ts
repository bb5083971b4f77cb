import { sayFigures, spokenBack, spokenFigure, spokenLength, spokenNumber, spokenTurn, turnInShort } from './spoken';

test.each([
  [0, 'zero'],
  [14, 'fourteen'],
  [69, 'sixty-nine'],
  [100, 'one hundred'],
  [109, 'one hundred and nine'],
  [345, 'three hundred and forty-five'],
  [6200, 'six thousand two hundred'],
])('%d is said “%s”', (whole, said) => expect(spokenNumber(whole)).toBe(said));

test('quarters are said as such, other parts by their digits', () => {
  expect([69.5, 0.25, 12.75, 109.3, 0.05, -4].map(spokenFigure)).toEqual([
    'sixty-nine and a half',
    'a quarter',
    'twelve and three quarters',
    'one hundred and nine point three',
    'zero point zero five',
    'minus four',
  ]);
});

test('lengths are said in the units of the build: thou under an inch', () => {
  // Common practice, no source: a thousandth of an inch is a thou.
  expect([1.27, 0.0127, 8.382, 38.1].map((mm) => spokenLength(mm, 'in'))).toEqual([
    'fifty thou',
    'a half thou',
    'three hundred and thirty thou',
    'one and a half inches',
  ]);
  expect(spokenLength(1.27, 'mm')).toBe('one point two seven millimetres');
  expect(spokenLength(1, 'mm')).toBe('one millimetre');
});

test('a sentence keeps its words and loses its signs', () => {
  expect(sayFigures('Zero it. Back up well past, come forward to 0.050 in before peak. Read the wheel.')).toBe(
    'Zero it. Back up well past, come forward to fifty thou before peak. Read the wheel.',
  );
  expect(sayFigures('Set the wheel to 26½° after; it is 1° off, −0.25 mm.')).toBe(
    'Set the wheel to twenty-six and a half degrees after; it is one degree off, minus a quarter millimetres.',
  );
  expect(sayFigures('Cylinder 7, intake: turn on, about 180°.')).toBe(
    'Cylinder 7, intake: turn on, about one hundred and eighty degrees.',
  );
});

test('what the hands do, and what was kept', () => {
  const turn = { height: 1.27, label: 'before peak', approach: 'forward', reads: 'wheel' } as const;
  expect(turnInShort(turn, 'mm')).toBe('1.27 mm before peak, coming forward. Read the wheel.');
  expect(spokenTurn(turn, 'in')).toBe('Fifty thou before peak, coming forward. Read the wheel.');
  expect(spokenTurn({ ...turn, height: null, label: 'peak lift', reads: 'indicator' }, 'in')).toBe(
    'Peak lift, coming forward. Read the indicator.',
  );
  const back = (wheel: Parameters<typeof spokenBack>[0]['wheel'], lift: number | null = null) =>
    spokenBack({ wheel, lift }, 'in');
  expect(back({ ring: '0-180', shows: 69, side: 'before' })).toBe('Sixty-nine before, kept.');
  expect(back({ ring: '0-90', shows: 55.5, side: 'after-bdc' })).toBe('Fifty-five and a half after B D C, kept.');
  expect(back({ ring: '0-360', shows: 329.25, sense: 'rising' })).toBe(
    'Three hundred and twenty-nine and a quarter, kept.',
  );
  expect(back({ ring: 'rim', round: 584.2, unit: 'in', shows: 47.625, side: 'after' })).toBe(
    'One and seven eighths inches after, kept.',
  );
  expect(back(null, 8.382)).toBe('Three hundred and thirty thou, kept.');
});
