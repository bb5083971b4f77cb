import { usePathname } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useClockOff } from '@/sync/clock';
import { QuietButton } from '@/ui/buttons';
import { Words } from '@/ui/words';
import { isUnattended } from './hands-on';

const HOUR_MS = 60 * 60_000;
const DAYS = 48;

/** `offWords(-172800000)` is "2 days behind". */
function offWords(by: number): string {
  const hours = Math.round(Math.abs(by) / HOUR_MS);
  const size = hours < DAYS ? `${hours} ${hours === 1 ? 'hour' : 'hours'}` : `${Math.round(hours / 24)} days`;
  return `${size} ${by > 0 ? 'ahead of' : 'behind'}`;
}

/** A device whose clock is wrong writes wrong times on the sheet. Nothing is worked out from them, so that work goes on. */
export function ClockNotice() {
  const off = useClockOff();
  const [read, setRead] = useState(false);
  // Nothing is written there, and nobody stands there to set it.
  const unattended = isUnattended(usePathname());
  if (off === 0 || read || unattended) return null;
  return (
    <View
      role="alert"
      testID="clock-off"
      className="flex-row flex-wrap items-center justify-between gap-x-4 border-b border-hairline bg-raised px-4 py-1"
    >
      <Words look="label" className="shrink">
        {`The clock of this device is ${offWords(off)} the server’s. Set it: times on the sheet come from it.`}
      </Words>
      <QuietButton testID="clock-read" label="OK" onPress={() => setRead(true)} />
    </View>
  );
}
