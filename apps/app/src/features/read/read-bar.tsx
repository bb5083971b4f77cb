import ChevronDown from 'lucide-react-native/icons/chevron-down';
import { Pressable, Text, View } from 'react-native';
import { VALVES, type Valve } from '@yosoku/core/cam/card';
import { READ_METHODS } from '@yosoku/core/measure/read-methods';
import { ValveMark } from '@/pictures/valve-mark';
import { useTheme } from '@/ui/theme';
import type { ReadingChoice } from './use-reading-choice';

const NAMES: Readonly<Record<Valve, string>> = { intake: 'Intake', exhaust: 'Exhaust' };

/** Which valve is being read, and by what; both a tap away. */
export function ReadBar({ choice, onMethod }: { readonly choice: ReadingChoice; readonly onMethod: () => void }) {
  const theme = useTheme();
  return (
    <View className="flex-row flex-wrap items-stretch border-b border-hairline">
      <View role="radiogroup" aria-label="Valve" className="flex-row">
        {VALVES.map((valve) => {
          const chosen = choice.valve === valve;
          return (
            <Pressable
              key={valve}
              role="radio"
              testID={`valve-${valve}`}
              aria-checked={chosen}
              onPress={() => choice.choose({ valve })}
              className={`min-h-[46px] flex-row items-center gap-2 border-b-4 px-3 ${chosen ? 'bg-raised' : 'border-transparent'} ${chosen ? (valve === 'intake' ? 'border-intake' : 'border-exhaust') : ''}`}
            >
              <ValveMark valve={valve} colour={theme[valve]} />
              <Text className={`font-medium text-[16px] ${chosen ? 'text-ink' : 'text-soft'}`}>{NAMES[valve]}</Text>
            </Pressable>
          );
        })}
      </View>
      {choice.banked ? (
        <Pressable
          role="button"
          testID="other-bank"
          aria-label={`Bank ${choice.bank}, cylinder ${choice.cylinder}. Read the other`}
          onPress={() => choice.choose({ bank: choice.bank === 1 ? '2' : '1' })}
          className="min-h-[46px] justify-center px-3 active:opacity-70"
        >
          <Text className="font-medium text-[16px] text-brass">{`Bank ${choice.bank}`}</Text>
        </Pressable>
      ) : null}
      {choice.beside ? (
        <Pressable
          role="button"
          testID="own-cylinder"
          aria-label={`Cylinder ${choice.cylinder}. Back to the one that the cam is measured at`}
          onPress={choice.toOwn}
          className="min-h-[46px] justify-center px-3 active:opacity-70"
        >
          <Text className="font-medium text-[16px] text-brass">{`Cyl ${choice.cylinder}`}</Text>
        </Pressable>
      ) : null}
      <Pressable
        role="button"
        testID="choose-method"
        aria-label={`Method: ${READ_METHODS[choice.method].name}. Change it`}
        onPress={onMethod}
        className="min-h-[46px] shrink grow flex-row items-center justify-end gap-1 px-3 active:opacity-70"
      >
        <Text numberOfLines={1} className="shrink font-medium text-[16px] text-brass">
          {READ_METHODS[choice.method].tab}
        </Text>
        <ChevronDown size={17} color={theme.brass} />
      </Pressable>
    </View>
  );
}
