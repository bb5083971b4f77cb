import { type LengthKey, pressLengthKey, readLength } from './length-draft';

const press = (...keys: LengthKey[]): string => keys.reduce(pressLengthKey, '');

test('the length pad writes figures and, behind them, a unit', () => {
  expect(press('3', '3', '0')).toBe('330');
  expect(press('0', '.', '3', '.', '3')).toBe('0.33');
  expect(press('8', '.', '4', 'mm')).toBe('8.4 mm');
  expect(press('8', 'mm', '5')).toBe('85 mm');
  expect(press('8', 'mm', 'mm')).toBe('8');
  expect(press('8', 'mm', 'thou')).toBe('8 thou');
  expect(press('8', 'mm', 'back')).toBe('8');
  expect(press('8', 'back', 'back')).toBe('');
});

test('what stands there is understood, or said not to be', () => {
  expect(readLength('', 'in')).toBeNull();
  expect(readLength('330', 'in')).toMatchObject({ ok: true, understood: '0.330 in' });
  expect(readLength('8.4 mm', 'in')).toMatchObject({ ok: true, mm: 8.4 });
  expect(readLength('.', 'mm')).toMatchObject({ ok: false });
});
