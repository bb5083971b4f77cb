import Maximize2 from 'lucide-react-native/icons/maximize-2';
import Minimize2 from 'lucide-react-native/icons/minimize-2';
import { Pressable } from 'react-native';
import { selectSettings, settingsChanged } from '@/store/settings-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { useTheme } from '@/ui/theme';
import { useShortcuts } from '@/ui/use-shortcuts';
import type { Place } from './station-line';

/** Where something is read off the engine while it is turned. */
const GLANCED: ReadonlySet<Place> = new Set<Place>(['zero', 'read']);

/** One switch for eyes three metres away; at the bench F does the same. */
export function AfarKey({ here }: { readonly here: Place }) {
  const dispatch = useAppDispatch();
  const { brass } = useTheme();
  const { fromAfar } = useAppSelector(selectSettings);
  const change = (): void => void dispatch(settingsChanged({ fromAfar: !fromAfar }));
  useShortcuts(GLANCED.has(here) ? { f: change } : {});
  if (!GLANCED.has(here)) return null;
  const Sign = fromAfar ? Minimize2 : Maximize2;
  return (
    <Pressable
      role="switch"
      testID="from-afar-key"
      aria-checked={fromAfar}
      aria-label="Readable from afar"
      onPress={change}
      className="h-[44px] w-[44px] items-center justify-center active:bg-raised"
    >
      <Sign size={20} color={brass} />
    </Pressable>
  );
}
