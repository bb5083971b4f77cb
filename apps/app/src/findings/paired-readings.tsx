import { View } from 'react-native';
import { Words } from '@/ui/words';

interface Corner {
  /** As read, like "26½° after"; undefined while it is missing. */
  readonly shows: string | undefined;
  readonly label: string;
}

/** The two readings that a midpoint is made of: in the lower corners beside the wheel, or below it where that is too narrow. */
export function PairedReadings({ left, right }: { readonly left: Corner; readonly right: Corner | null }) {
  return (
    <View
      className="w-full flex-row flex-wrap justify-between gap-x-4 px-4 roomy:absolute roomy:bottom-0 wide:px-0"
      style={{ pointerEvents: 'none' }}
    >
      <Reading {...left} />
      {right ? <Reading {...right} end /> : null}
    </View>
  );
}

function Reading({ shows = '–', label, end = false }: Corner & { readonly end?: boolean }) {
  const [figure, ...side] = shows.split(' ');
  return (
    <View className={end ? 'roomy:items-end' : ''}>
      <Words look="figure" className="text-[21px]">
        {figure}
      </Words>
      {side.length > 0 ? (
        <Words look="soft" tone="ink" className="leading-[17px]">
          {side.join(' ')}
        </Words>
      ) : null}
      <Words look="soft" className="leading-[18px]">
        {label}
      </Words>
    </View>
  );
}
