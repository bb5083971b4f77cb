import { book } from '@yosoku/core/testing/book';
import { lashForm, readLash } from './lash-form';

const form = (units: 'in' | 'mm', draft: Record<string, string>) =>
  lashForm(draft, book({ ring: '0-180' }, units).report());

test('what is wanted, as it is understood in the units of the build', () => {
  expect(readLash(form('in', { 'intake-cold': '16', 'exhaust-cold': '.018' }), 'in')).toEqual({
    ok: true,
    wanted: {
      kind: 'lash',
      intake: expect.closeTo(0.4064, 6),
      exhaust: expect.closeTo(0.4572, 6),
      noGo: expect.closeTo(0.0508, 6),
    },
  });
  // One blade is used where the step is taken out; a lash of nothing is one.
  expect(readLash(form('mm', { 'intake-cold': '0', 'exhaust-cold': '0.2', noGo: '' }), 'mm')).toEqual({
    ok: true,
    wanted: { kind: 'lash', intake: 0, exhaust: 0.2 },
  });
});

test('each field says what is wrong with it, and nothing is guessed', () => {
  const read = readLash(form('in', { 'intake-cold': '', 'exhaust-cold': '9 mm', noGo: '0' }), 'in');
  expect(read).toEqual({
    ok: false,
    errors: {
      intake: 'Say what is wanted.',
      exhaust: expect.stringMatching(/too much/),
      noGo: expect.stringMatching(/More than 0/),
    },
  });
  expect(readLash(form('in', { kind: 'preload', turns: '-1' }), 'in')).toMatchObject({
    ok: false,
    errors: { turns: expect.stringMatching(/0 to 6/) },
  });
  expect(readLash(form('in', { kind: 'preload', turns: '0,75', pitch: '50' }), 'in')).toEqual({
    ok: true,
    wanted: { kind: 'preload', turns: 0.75, pitch: expect.closeTo(1.27, 6) },
  });
});

test('a figure typed for the cold engine does not stand there for the hot one', () => {
  expect(form('in', { 'intake-cold': '16', engine: 'hot' }).intake).toBe('');
  expect(form('in', { kind: 'preload', engine: 'hot' })).toMatchObject({ kind: 'preload', engine: 'hot', turns: '' });
});
