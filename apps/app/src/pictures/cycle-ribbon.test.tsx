import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { Provider } from 'react-redux';
import { makeStore } from '@/store/store';
import { CycleRibbon } from './cycle-ribbon';

const LOBE = { peak: 8, nose: 107, half: 140, power: 2, lean: 0 };

/** The ribbon with one lobe, and its cursor moved by keys. */
async function ribbon() {
  render(
    <Provider store={makeStore()}>
      <CycleRibbon
        testID="ribbon"
        card={{ intake: LOBE, exhaust: null }}
        units="mm"
        width={360}
        description="Cycle ribbon"
      />
    </Provider>,
  );
  const press = async (key: string, shiftKey = false): Promise<void> =>
    act(async () => {
      fireEvent(screen.getByTestId('ribbon'), 'keyDown', { key, shiftKey, preventDefault: () => undefined });
    });
  const said = (): string => String(screen.getByTestId('ribbon-cursor').props.children);
  return { press, said };
}

test('keys alone say what stands where, to the ends of the cycle and no further', async () => {
  const { press, said } = await ribbon();
  expect(said()).toBe('Card, intake 8.00 mm');
  await press('ArrowLeft');
  expect(said()).toMatch(/^1° BTDC: intake \d\.\d\d mm$/);
  for (let i = 0; i < 11; i += 1) await press('PageUp');
  await press('ArrowLeft');
  await press('ArrowLeft');
  // At its nose the lobe lifts what the card says.
  expect(said()).toBe('107° ATDC: intake 8.00 mm');
  for (let i = 0; i < 40; i += 1) await press('ArrowRight', true);
  expect(said()).toBe('firing TDC: intake 0.00 mm');
});
