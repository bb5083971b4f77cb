import type { ReactNode } from 'react';
import { Text, View, useWindowDimensions } from 'react-native';
import { useWide } from '@/ui/layout';
import { Words } from '@/ui/words';

interface AfarProps {
  /** What the hands do now. */
  readonly sentence: string;
  /** What is typed, or was read last: "69½°" and "before". */
  readonly figure: string;
  readonly word: string;
  /** Draws the picture as large as the room that is left. */
  readonly picture: (size: number) => ReactNode;
}

/** Header and line of stations on a phone; instruction and figure. */
const ABOVE = 110;
const WORDS = 240;
const SMALLEST = 180;
/** Header, entry and buttons on a wide screen. */
const AROUND_WIDE = 420;

/** A station for eyes three metres away: one instruction, one figure, the wheel. On a phone what is pressed stands below it. */
export function Afar({ sentence, figure, word, picture }: AfarProps) {
  const { width, height } = useWindowDimensions();
  const wide = useWide();
  const room = height - ABOVE;
  const size = Math.max(SMALLEST, wide ? height - AROUND_WIDE : Math.min(width - 24, room - WORDS));
  return (
    <View
      testID="from-afar"
      className="gap-2 px-3 pt-3 wide:flex-row wide:px-0 wide:pt-1"
      style={wide ? null : { minHeight: room }}
    >
      <View className="gap-2 wide:shrink wide:grow">
        <Words
          level={1}
          testID="sentence"
          aria-live="polite"
          className="font-bold text-[32px] leading-[36px] wide:text-[44px] wide:leading-[48px]"
        >
          {sentence}
        </Words>
        <View className="flex-row flex-wrap items-baseline gap-x-4">
          <Text
            testID="afar-figure"
            className="font-figures-bold text-[108px] leading-[112px] text-ink wide:text-[150px] wide:leading-[154px]"
            style={{ fontVariant: ['tabular-nums'] }}
          >
            {figure === '' ? '–' : figure}
          </Text>
          {figure === '' ? null : <Text className="font-bold text-[40px] leading-[46px] text-ink">{word}</Text>}
        </View>
      </View>
      <View className="items-center">{picture(size)}</View>
    </View>
  );
}
