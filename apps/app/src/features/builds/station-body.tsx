import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { useWide } from '@/ui/layout';

interface StationBodyProps {
  readonly children: ReactNode;
  /** What must stay under the thumb: on a phone it never scrolls away. */
  readonly footer: ReactNode;
}

/** The contents of a station: what is read scrolls, what is pressed stays. */
export function StationBody({ children, footer }: StationBodyProps) {
  const wide = useWide();
  if (wide)
    return (
      <ScrollView className="flex-1" contentContainerStyle={{ paddingBottom: 28 }}>
        {children}
        <View className="max-w-[760px] pt-2">{footer}</View>
      </ScrollView>
    );
  return (
    <View className="flex-1">
      <ScrollView className="flex-1" contentContainerStyle={{ flexGrow: 1 }}>
        {children}
      </ScrollView>
      {footer}
    </View>
  );
}
