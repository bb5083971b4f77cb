import { act, renderHook } from '@testing-library/react-native';
import { heedGeneration, useTooOld } from './generation';

const answer = (least?: string): Response =>
  ({ headers: new Headers(least === undefined ? {} : { 'Yosoku-Least-App': least }) }) as Response;

test('a server that no longer speaks with this version says so; an answer that says nothing changes nothing', () => {
  const { result } = renderHook(useTooOld);
  const hear = (least?: string): boolean => {
    act(() => void heedGeneration(answer(least)));
    return result.current;
  };
  expect(hear('1')).toBe(false);
  expect(hear('2')).toBe(true);
  expect(hear()).toBe(true);
  expect(hear('1')).toBe(false);
});
