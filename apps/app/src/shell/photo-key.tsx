import Camera from 'lucide-react-native/icons/camera';
import { Link } from 'expo-router';
import { useTheme } from '@/ui/theme';
import type { Place } from './station-line';

/** To the photos of the build, and back to where the hands are. */
export function PhotoKey({ buildId, here }: { readonly buildId: string; readonly here: Place }) {
  const { brass } = useTheme();
  if (here === 'photos') return null;
  return (
    <Link
      href={{ pathname: `/builds/${buildId}/photos`, params: { from: here } }}
      replace
      testID="to-photos"
      aria-label="Photos"
      className="h-[44px] w-[40px] p-3"
    >
      <Camera size={20} color={brass} />
    </Link>
  );
}
