import { renderHook, act } from '@testing-library/react-native';
import { heedClock, useClockOff } from './clock';

const DAY = 86_400_000;
const answerAt = (time: number) => ({ headers: new Headers({ Date: new Date(time).toUTCString() }) }) as Response;

test('a clock that is days off is noticed, a network that takes its time is not, and one that was set right is forgotten', async () => {
  const { result } = renderHook(useClockOff);
  await act(async () => void heedClock(answerAt(Date.now() - 20_000)));
  expect(result.current).toBe(0);
  await act(async () => void heedClock(answerAt(Date.now() - 2 * DAY)));
  expect(Math.round(result.current / DAY)).toBe(2);
  await act(async () => void heedClock({ headers: new Headers() } as Response));
  expect(Math.round(result.current / DAY)).toBe(2);
  await act(async () => void heedClock(answerAt(Date.now())));
  expect(result.current).toBe(0);
});
