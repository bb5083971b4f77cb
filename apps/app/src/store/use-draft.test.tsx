import { act, render } from '@testing-library/react-native';
import { Provider } from 'react-redux';
import { makeStore } from './store';
import { useDraft } from './use-draft';

test('two fields that change at once are both kept; a form is begun when it is opened, and forgotten when it is done', async () => {
  const store = makeStore();
  let form!: ReturnType<typeof useDraft<'name' | 'note'>>;
  function Form() {
    form = useDraft<'name' | 'note'>('a-build/sign');
    return null;
  }
  render(
    <Provider store={store}>
      <Form />
    </Provider>,
  );
  expect([form.draft, form.isBegun]).toEqual([{}, false]);
  await act(async () => {
    // Both from the same drawing of the form: the second must not undo the first.
    form.change({ name: 'Mara' });
    form.change({ note: 'On the card.' });
  });
  expect([form.draft, form.isBegun]).toEqual([{ name: 'Mara', note: 'On the card.' }, true]);
  await act(async () => form.done());
  expect([form.draft, form.isBegun, store.getState().drafts]).toEqual([{}, false, {}]);
});
