import Delete from 'lucide-react-native/icons/delete';
import { Pressable, Text, View } from 'react-native';
import { selectSettings } from '@/store/settings-slice';
import { useAppSelector } from '@/store/store';
import { useTheme } from '@/ui/theme';
import type { LengthKey } from './length-draft';
import type { PadKey } from './reading-draft';

/** Degrees have their fractions down the side, lengths their units. */
const DEGREE_ROWS: readonly (readonly PadKey[])[] = [
  ['7', '8', '9', '¼'],
  ['4', '5', '6', '½'],
  ['1', '2', '3', '¾'],
  ['.', '0', 'back'],
];
const LENGTH_ROWS: readonly (readonly LengthKey[])[] = [
  ['7', '8', '9', 'thou'],
  ['4', '5', '6', 'in'],
  ['1', '2', '3', 'mm'],
  ['.', '0', 'back'],
];

/** Big keys for a greasy thumb: a reading of the wheel. */
export const Keypad = (props: KeysProps<PadKey>) => <Keys {...props} rows={DEGREE_ROWS} />;

/** The same for a length. */
export const LengthKeypad = (props: KeysProps<LengthKey>) => <Keys {...props} rows={LENGTH_ROWS} />;

interface KeysProps<Key extends string> {
  readonly onKey: (key: Key) => void;
  readonly onUndo: (() => void) | null;
}

// What two quick presses select would end the second one.
const KEY =
  'h-[50px] basis-1/4 items-center justify-center border-b border-r border-hairline active:bg-raised select-none';

/** What stands under the right thumb stands under the left one. The last row has its fourth key from elsewhere. */
const forLeftHand = <Key,>(row: readonly Key[]): readonly Key[] =>
  row.length === 4 ? [...row.slice(3), ...row.slice(0, 3)] : row;

function Keys<Key extends string>({
  onKey,
  onUndo,
  rows,
}: KeysProps<Key> & { readonly rows: readonly (readonly Key[])[] }) {
  const { ink } = useTheme();
  const left = useAppSelector(selectSettings).hand === 'left';
  const undo = (
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
  );
  return (
    <View role="group" aria-label="Keypad" className="border-t border-hairline">
      {rows.map((row, at) => (
        <View key={row.join()} className="flex-row">
          {at === rows.length - 1 && left ? undo : null}
          {(left ? forLeftHand(row) : row).map((key) => (
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
                <Text className={`font-figures text-ink ${key.length > 1 ? 'text-[18px]' : 'text-[25px]'}`}>{key}</Text>
              )}
            </Pressable>
          ))}
          {at === rows.length - 1 && !left ? undo : null}
        </View>
      ))}
    </View>
  );
}
