import '../global.css';
// First of all: schemas look at this setting when they are made.
import '@/no-code-at-run-time';
import { Barlow_500Medium } from '@expo-google-fonts/barlow/500Medium';
import { Barlow_600SemiBold } from '@expo-google-fonts/barlow/600SemiBold';
import { BarlowSemiCondensed_400Regular } from '@expo-google-fonts/barlow-semi-condensed/400Regular';
import { BarlowSemiCondensed_500Medium } from '@expo-google-fonts/barlow-semi-condensed/500Medium';
import { BarlowSemiCondensed_600SemiBold } from '@expo-google-fonts/barlow-semi-condensed/600SemiBold';
import { FontDisplay, useFonts } from 'expo-font';
import { Slot, useSegments } from 'expo-router';
import { useEffect, useState } from 'react';
import { Provider } from 'react-redux';
import { ClockNotice } from '@/shell/clock-notice';
import { dropFirstForm } from '@/shell/first-form';
import { NewVersion } from '@/shell/new-version';
import { makeStore, useAppSelector } from '@/store/store';
import { SyncLoop } from '@/sync/sync-loop';
import { selectSettings } from '@/store/settings-slice';
import { teach } from '@/ui/taught-keys';
import { useChosenTheme } from '@/ui/theme';

/** On a device that has been here before they are there at once; a first visit over a slow network does not wait for them, ms. */
const PATIENCE_WITH_FONTS_MS = 120;
const soon = (uri: number) => ({ uri, display: FontDisplay.SWAP });

export default function RootLayout() {
  const [store] = useState(makeStore);
  const [fonts] = useFonts({
    Barlow_500Medium: soon(Barlow_500Medium),
    Barlow_600SemiBold: soon(Barlow_600SemiBold),
    BarlowSemiCondensed_400Regular: soon(BarlowSemiCondensed_400Regular),
    BarlowSemiCondensed_500Medium: soon(BarlowSemiCondensed_500Medium),
    BarlowSemiCondensed_600SemiBold: soon(BarlowSemiCondensed_600SemiBold),
  });
  const [waited, setWaited] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setWaited(true), PATIENCE_WITH_FONTS_MS);
    return () => clearTimeout(timer);
  }, []);
  if (!fonts && !waited) return null;
  return (
    <Provider store={store}>
      <Awake />
    </Provider>
  );
}

/** Nothing is drawn before this device's memory has been read: a reading typed too early would be overwritten by it. */
function Awake() {
  useChosenTheme();
  const { keys } = useAppSelector(selectSettings);
  useEffect(() => teach(keys), [keys]);
  const awake = useAppSelector((state) => state.awake);
  const account = useAppSelector((state) => state.session.account);
  const [place] = useSegments();
  // Everything else behind the sign-in leads there; the sign-in itself goes on from what has been typed.
  const leadsToSignIn = place === 'sign-in' || (place === '(shop)' && account === null);
  useEffect(() => {
    if (awake && !leadsToSignIn) dropFirstForm();
  }, [awake, leadsToSignIn]);
  if (!awake) return null;
  return (
    <>
      <SyncLoop />
      <NewVersion />
      <ClockNotice />
      <Slot />
    </>
  );
}
