import { Redirect, useLocalSearchParams } from 'expo-router';
import { type ReactNode, useState } from 'react';
import { selectEntries } from '@/store/selectors';
import { selectSettings } from '@/store/settings-slice';
import { useAppSelector } from '@/store/store';
import { type Place, placeHref } from './station-line';

/** An app that is opened from the home screen goes on where the work was, also without a network; from there “‹” leads to the list. */
export function GoOn({ children }: { readonly children: ReactNode }) {
  const { from } = useLocalSearchParams<{ from?: string }>();
  const { last } = useAppSelector(selectSettings);
  const shopId = useAppSelector((state) => state.session.account?.shopId);
  const isHere = useAppSelector((state) => last !== null && selectEntries(state, last.buildId).length > 0);
  // Once: whoever comes back to the list wants the list.
  const [goes] = useState(from === 'home' && isHere && last?.shopId === shopId);
  return goes && last ? <Redirect href={placeHref(last.buildId, last.place as Place)} /> : children;
}
