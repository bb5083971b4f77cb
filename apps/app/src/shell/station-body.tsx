import type { ReactNode } from 'react';
import { ScrollView, View, useWindowDimensions } from 'react-native';
import { Reopen, useClosed } from '@/logbook/closed';
import { Unwritten } from '@/logbook/unwritten';
import { selectSettings } from '@/store/settings-slice';
import { useAppSelector } from '@/store/store';
import { useWide } from '@/ui/layout';

interface StationBodyProps {
  readonly children: ReactNode;
  /** What must stay under the thumb: it never scrolls away, unless the window is too low for it. */
  readonly footer: ReactNode;
  /** What is shown instead where the device is looked at from afar; left out: the same. */
  readonly afar?: ReactNode;
}

/** In a window lower than this (a large zoom, a phone on its side) the pad would leave no room for what is read. */
const ROOM_FOR_BOTH = 560;

/** The contents of a station: what is read scrolls, what is pressed stays. */
export function StationBody({ children, footer, afar }: StationBodyProps) {
  const wide = useWide();
  const { fromAfar } = useAppSelector(selectSettings);
  const glanced = fromAfar && afar !== undefined;
  const stays = useWindowDimensions().height >= ROOM_FOR_BOTH && (wide || !glanced);
  const closed = useClosed();
  // Nothing is written into a signed build: its reopening stands where things are recorded.
  const pressed = (
    <View className="wide:max-w-[760px] wide:pb-6">
      <View className="px-4 wide:px-0">
        <Unwritten />
      </View>
      {closed ? <Reopen closed={closed} /> : footer}
    </View>
  );
  return (
    <View className="flex-1">
      <ScrollView
        className="flex-1"
        tabIndex={0}
        contentContainerStyle={wide ? { paddingBottom: 12 } : { flexGrow: 1 }}
      >
        {glanced ? afar : children}
        {stays ? null : pressed}
      </ScrollView>
      {stays ? pressed : null}
    </View>
  );
}
