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

/**
 * After this the page is left and comes back, ms: what a page fetches through the old worker in the moment of the change can hold the new one back for as long
 * as that page stays, in Chromium at least, and nothing but leaving lets go of it.
 */
const LEAVE_MS = 5_000;
/** So often; after that some other window holds it back. */
const MOST_LEAVES = 3;
/** How often this page has been left for it; kept by the window over its reloads. */
const LEAVES = 'yosoku.left-for-version';

/** How often it was left, once: what comes later is another version. */
function takeLeaves(): number {
  try {
    const leaves = Number(sessionStorage.getItem(LEAVES) ?? 0);
    sessionStorage.removeItem(LEAVES);
    return leaves;
  } catch {
    // A browser that lets nothing be kept: then it is offered again, not taken by itself.
    return 0;
  }
}

function leave(leaves: number): void {
  try {
    sessionStorage.setItem(LEAVES, String(leaves + 1));
  } catch {
    // As above.
  }
  location.reload();
}

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
  const [leaves] = useState(takeLeaves);
  // What was left for is gone on with; not what comes days later.
  const [taking, setTaking] = useState(leaves > 0);
  useEffect(() => {
    if (leaves === 0) return;
    const over = setTimeout(() => setTaking(false), 2 * LEAVE_MS);
    return () => clearTimeout(over);
  }, [leaves]);
  const isHeld = leaves >= MOST_LEAVES;
  const path = usePathname();
  // Between readings, on the other pages.
  const handsOn = isHandsOn(path);
  // Where nobody stands to take it, it is taken when it comes.
  const unattended = isUnattended(path);
  useEffect(() => {
    // Who has gone back to the engine meanwhile is not pulled away from it.
    if (!unattended && (!taking || handsOn)) return;
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
    const leaving = isHeld ? undefined : setTimeout(() => leave(leaves), LEAVE_MS);
    return () => {
      clearInterval(again);
      clearTimeout(leaving);
      waiting.removeEventListener('statechange', look);
    };
  }, [taking, unattended, handsOn, replaced, waiting, leaves, isHeld]);
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
          : isHeld
            ? 'A new version is here. Close the other windows of this shop on this device, then take it.'
            : 'A new version is here.'}
      </Words>
      <QuietButton testID="take-version" label={taking ? 'Taking it' : 'Take it now'} onPress={take} />
    </View>
  );
}
