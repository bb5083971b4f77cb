import { View } from 'react-native';
import { Words } from '@/ui/words';

interface PairedReadingsProps {
  readonly left: { readonly shows: string | undefined; readonly label: string };
  readonly right: { readonly shows: string | undefined; readonly label: string };
}

/** The two readings that a midpoint is made of, in the lower corners beside the wheel. */
export function PairedReadings({ left, right }: PairedReadingsProps) {
  return (
    <View className="absolute bottom-0 left-0 right-0 flex-row justify-between px-4" style={{ pointerEvents: 'none' }}>
      <View>
        <Words look="figure" className="text-[20px]">
          {left.shows ?? '–'}
        </Words>
        <Words look="soft">{left.label}</Words>
      </View>
      <View className="items-end">
        <Words look="figure" className="text-[20px]">
          {right.shows ?? '–'}
        </Words>
        <Words look="soft">{right.label}</Words>
      </View>
    </View>
  );
}
