import { useEffect } from 'react';
import { type DefaultValues, type FieldValues, type UseFormReturn, useForm } from 'react-hook-form';
import { draftDone, drafted } from '@/store/drafts-slice';
import { type RootState, useAppDispatch } from '@/store/store';
import { useStore } from 'react-redux';

/** A form of text fields whose half-typed state is kept on this device under `place` until `done`. */
export function useDraftForm<Values extends FieldValues & Record<string, string>>(
  place: string,
  initial: Values,
): UseFormReturn<Values> & { readonly done: () => void } {
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const form = useForm<Values>({
    // Read once: afterwards the form itself knows best.
    defaultValues: { ...initial, ...store.getState().drafts[place] } as DefaultValues<Values>,
    mode: 'onTouched',
  });
  const { subscribe } = form;
  useEffect(
    () =>
      subscribe({
        formState: { values: true },
        callback: ({ values }) => {
          dispatch(drafted({ place, draft: values }));
        },
      }),
    [dispatch, place, subscribe],
  );
  return { ...form, done: () => dispatch(draftDone(place)) };
}
