import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { Instruments } from './instruments';

let mockReached = false;
jest.mock('./all-instruments', () => ({
  plugInPractice: () => (mockReached ? Promise.resolve() : Promise.reject(new TypeError('Failed to fetch'))),
}));
jest.mock('@/logbook/station', () => ({ useStation: () => ({ report: { build: { id: 'b' } } }) }));
jest.mock('@/practice/practice-frame', () => ({ usePractice: () => ({ id: 'b' }) }));
jest.mock('@/instruments/plugged-in', () => ({ useInstrument: () => null }));

const WANTED = { approach: 'forward', wheel: true, shown: null, lift: false, place: 'opening' } as const;

test('where the box of a practice cannot be fetched that is said, and pressed again it is tried again', async () => {
  render(<Instruments valve={null} wanted={WANTED} typed={null} onTake={() => undefined} onSynced={() => undefined} />);
  const press = () => act(async () => void fireEvent.press(screen.getByTestId('instrument')));
  await press();
  expect(screen.getByRole('alert')).toHaveTextContent(/could not be loaded\. Press again/);
  mockReached = true;
  await press();
  expect(screen.queryByRole('alert')).toBeNull();
});
