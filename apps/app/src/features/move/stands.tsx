import { useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { type Hardware, type Setting, reachOf } from '@yosoku/core/timing-set/hardware';
import { signed } from '@yosoku/core/timing-set/kinds/kind';
import { typedFigure } from '@/forms/typed-figure';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

interface StandsProps {
  readonly hardware: Hardware;
  readonly at: Setting;
  /** Told once for each choice: a figure when its field is left, not at every key. */
  readonly onChange: (at: Setting) => void;
}

/** Steps to either side of the middle that there is room for. */
const MOST_EITHER_SIDE = 13;

/** Where hardware stands now: one of its marks, or a figure of its scale. */
export function Stands({ hardware, at, onChange }: StandsProps) {
  const reach = reachOf(hardware);
  const [text, setText] = useState('at' in at ? signed(at.at) : '');
  if (reach.kind === 'marks') {
    const middle = (reach.positions.length - 1) / 2;
    const shown = reach.positions.filter(
      ({ mark }, place) => Math.abs(place - middle) <= MOST_EITHER_SIDE || ('mark' in at && at.mark === mark),
    );
    return (
      <View className="gap-1">
        <Words look="label">It stands at</Words>
        <View role="radiogroup" aria-label="It stands at" className="flex-row flex-wrap">
          {shown.map(({ mark, label }) => {
            const chosen = 'mark' in at && at.mark === mark;
            return (
              <Pressable
                key={mark}
                role="radio"
                aria-checked={chosen}
                aria-label={label}
                testID={`stands-${mark}`}
                onPress={() => onChange({ mark })}
                className={`min-h-[48px] min-w-[56px] items-center justify-center border border-line px-3 ${chosen ? 'bg-ink' : ''}`}
              >
                <Text className={`font-figures text-[17px] ${chosen ? 'text-ground' : 'text-ink'}`}>{mark}</Text>
              </Pressable>
            );
          })}
        </View>
      </View>
    );
  }
  if (!reach.scale) return null;
  const figure = typedFigure(text);
  const good = figure >= reach.from && figure <= reach.to;
  const told = (): void => {
    if (good && !('at' in at && at.at === figure)) onChange({ at: figure });
  };
  return (
    <TextField
      testID="stands-at"
      label="It stands at, on its scale"
      value={text}
      inputMode="text"
      onChange={setText}
      onBlur={told}
      onSubmitEditing={told}
      error={good ? undefined : `A figure from ${signed(reach.from)} to ${signed(reach.to)}.`}
    />
  );
}
