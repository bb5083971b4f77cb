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

/** Header and line of stations on a phone, and on a wide screen. */
const ABOVE = 110;
/** Instruction and figure. */
const WORDS = 300;
const SMALLEST = 180;

/** A station for eyes three metres away: one instruction, one figure, the wheel. What is pressed stands below it. */
export function Afar({ sentence, figure, word, picture }: AfarProps) {
  const { width, height } = useWindowDimensions();
  const wide = useWide();
  const room = height - ABOVE;
  const size = Math.max(SMALLEST, Math.min(wide ? 420 : width - 24, room - WORDS));
  return (
    <View testID="from-afar" className="gap-2 px-3 pt-3" style={{ minHeight: room }}>
      <Words
        level={1}
        testID="sentence"
        aria-live="polite"
        className="font-bold text-[32px] leading-[36px] wide:text-[48px] wide:leading-[54px]"
      >
        {sentence}
      </Words>
      <View className="flex-row flex-wrap items-baseline gap-x-4">
        <Text
          testID="afar-figure"
          className="font-figures-bold text-[108px] leading-[112px] text-ink wide:text-[168px] wide:leading-[172px]"
          style={{ fontVariant: ['tabular-nums'] }}
        >
          {figure === '' ? '–' : figure}
        </Text>
        <Text className="font-bold text-[40px] leading-[46px] text-ink">{word}</Text>
      </View>
      <View className="items-center">{picture(size)}</View>
    </View>
  );
}
