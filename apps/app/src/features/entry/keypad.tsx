import Delete from 'lucide-react-native/icons/delete';
import { Pressable, Text, View } from 'react-native';
import { useTheme } from '@/ui/theme';
import type { PadKey } from './reading-draft';

const ROWS: readonly (readonly PadKey[])[] = [
  ['7', '8', '9', '¼'],
  ['4', '5', '6', '½'],
  ['1', '2', '3', '¾'],
  ['.', '0', 'back'],
];

interface KeypadProps {
  readonly onKey: (key: PadKey) => void;
  readonly onUndo: (() => void) | null;
}

const KEY = 'h-[50px] basis-1/4 items-center justify-center border-b border-r border-hairline active:bg-raised';

/** Big keys for a greasy thumb. */
export function Keypad({ onKey, onUndo }: KeypadProps) {
  const { ink } = useTheme();
  return (
    <View role="group" aria-label="Keypad" className="border-t border-hairline">
      {ROWS.map((row, at) => (
        <View key={row.join()} className="flex-row">
          {row.map((key) => (
            <Pressable
              key={key}
              role="button"
              aria-label={key === 'back' ? 'Delete' : key}
              testID={`key-${key}`}
              onPress={() => onKey(key)}
              className={KEY}
            >
              {key === 'back' ? (
                <Delete size={26} color={ink} />
              ) : (
                <Text className="font-figures text-[25px] text-ink">{key}</Text>
              )}
            </Pressable>
          ))}
          {at === ROWS.length - 1 ? (
            <Pressable
              role="button"
              testID="undo"
              aria-disabled={onUndo === null}
              disabled={onUndo === null}
              onPress={() => onUndo?.()}
              className={KEY}
            >
              <Text className={`font-medium text-[17px] ${onUndo ? 'text-brass' : 'text-soft'}`}>Undo</Text>
            </Pressable>
          ) : null}
        </View>
      ))}
    </View>
  );
}
