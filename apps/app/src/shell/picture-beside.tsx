import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useStationWidth } from './use-station-width';

/** Narrower than this, two columns would be narrower than a phone. */
const TWO_COLUMNS = 640;
const GAP = 28;

interface PictureBesideProps {
  /** Draws the picture as wide as it may be, pixels. */
  readonly picture: (width: number) => ReactNode;
  /** What the picture rests on. */
  readonly children: ReactNode;
}

/** A picture and its evidence: beside each other where there is room for both, else the picture above. */
export function PictureBeside({ picture, children }: PictureBesideProps) {
  const width = useStationWidth();
  if (width < TWO_COLUMNS)
    return (
      <>
        {picture(width)}
        {children}
      </>
    );
  const half = (width - GAP) / 2;
  return (
    <View className="flex-row items-start" style={{ columnGap: GAP, width }}>
      <View style={{ width: half }}>{picture(half)}</View>
      <View style={{ width: half }}>{children}</View>
    </View>
  );
}
