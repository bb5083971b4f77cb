import { usePathname } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useTooOld } from '@/sync/generation';
import { QuietButton } from '@/ui/buttons';
import { Words } from '@/ui/words';
import { isHandsOn, isUnattended } from './hands-on';

/** Looked for again this often, ms; a device at the engine may stay on for days. */
const LOOK_MS = 30 * 60_000;

/** A version that was asked to take over is asked again after this, ms. */
const AGAIN_MS = 3_000;

/** The version that waits to take over, and whether another window has let one take over already. */
function useNewVersion() {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  const [replaced, setReplaced] = useState(false);
  useEffect(() => {
    if (__DEV__ || !('serviceWorker' in navigator)) return;
    const { serviceWorker } = navigator;
    // The very first one takes this page over too, and replaces nothing.
    let isFirst = serviceWorker.controller === null;
    const taken = (): void => {
      if (!isFirst) setReplaced(true);
      isFirst = false;
    };
    serviceWorker.addEventListener('controllerchange', taken);
    let look = (): void => undefined;
    void serviceWorker.register('/sw.js').then(
      (registration) => {
        const see = (): void => {
          if (registration.waiting && serviceWorker.controller) setWaiting(registration.waiting);
        };
        see();
        registration.addEventListener('updatefound', () =>
          registration.installing?.addEventListener('statechange', see),
        );
        look = () => void registration.update().catch(() => undefined);
      },
      () => undefined,
    );
    const seen = (): void => {
      if (document.visibilityState === 'visible') look();
    };
    const timer = setInterval(() => look(), LOOK_MS);
    document.addEventListener('visibilitychange', seen);
    return () => {
      clearInterval(timer);
      serviceWorker.removeEventListener('controllerchange', taken);
      document.removeEventListener('visibilitychange', seen);
    };
  }, []);
  return { waiting, replaced };
}

/** A new version is offered, never pushed: what is typed and what waits to be sent are kept over it. */
export function NewVersion() {
  const { waiting, replaced } = useNewVersion();
  const tooOld = useTooOld();
  const [taking, setTaking] = useState(false);
  const path = usePathname();
  // Between readings, on the other pages.
  const handsOn = isHandsOn(path);
  // Where nobody stands to take it, it is taken when it comes.
  const unattended = isUnattended(path);
  useEffect(() => {
    if (!taking && !unattended) return;
    if (replaced) return location.reload();
    if (!waiting) return;
    const ask = (): void => waiting.postMessage({ type: 'take-over' });
    // Its own word that it is the version now, whether or not this page is handed over to it. One that was replaced in its turn is none to wait for.
    const look = (): void => {
      if (waiting.state === 'activated' || waiting.state === 'redundant') location.reload();
    };
    ask();
    look();
    waiting.addEventListener('statechange', look);
    // Said again until it is heard: a worker that a busy browser has put to sleep may miss it.
    const again = setInterval(ask, AGAIN_MS);
    return () => {
      clearInterval(again);
      waiting.removeEventListener('statechange', look);
    };
  }, [taking, unattended, replaced, waiting]);
  if (unattended) return null;
  if ((!waiting && !replaced && !tooOld) || (handsOn && !tooOld)) return null;
  const take = (): void => (waiting && !replaced ? setTaking(true) : location.reload());
  return (
    <View
      role="status"
      testID="new-version"
      className="flex-row flex-wrap items-center justify-between gap-x-4 border-b border-hairline bg-raised px-4 py-1"
    >
      <Words look="label" className="shrink">
        {tooOld
          ? 'This version is too old for the server. What is recorded is still delivered.'
          : 'A new version is here.'}
      </Words>
      <QuietButton testID="take-version" label={taking ? 'Taking it' : 'Take it now'} onPress={take} />
    </View>
  );
}
