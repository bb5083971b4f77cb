import { Pressable, Text, View } from 'react-native';
import { Words } from '@/ui/words';

interface TurnKeysProps {
  readonly onTurn: (by: number) => void;
  /** What is turned, for screen readers. */
  readonly what: string;
}

const STEPS = [-90, -10, -1, -0.25, 0.25, 1, 10, 90] as const;
const LABELS: Readonly<Record<number, string>> = { 0.25: '¼', 1: '1', 10: '10', 90: '90' };

/** Keys that turn back (left) and the way it runs (right), in degrees. */
export function TurnKeys({ onTurn, what }: TurnKeysProps) {
  return (
    <View>
      <View className="flex-row justify-between px-1">
        <Words look="soft">‹ turn back</Words>
        <Words look="soft">the way it runs ›</Words>
      </View>
      <View role="group" aria-label={`Turn ${what}`} className="flex-row flex-wrap border-y border-hairline">
        {STEPS.map((by) => (
          <Pressable
            key={by}
            role="button"
            testID={`turn${by}`}
            aria-label={`${by < 0 ? '−' : '+'}${LABELS[Math.abs(by)] ?? ''} degrees, ${by < 0 ? 'back' : 'the way it runs'}`}
            onPress={() => onTurn(by)}
            className={`h-[52px] min-w-[40px] grow basis-0 items-center justify-center active:bg-raised ${by === 0.25 ? 'border-l border-hairline' : ''}`}
          >
            <Text className="font-figures-bold text-[18px] text-brass">
              {by < 0 ? `−${LABELS[-by] ?? ''}` : `+${LABELS[by] ?? ''}`}
            </Text>
          </Pressable>
        ))}
      </View>
    </View>
  );
}
