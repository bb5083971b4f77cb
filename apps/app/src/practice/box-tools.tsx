import { useState } from 'react';
import { View } from 'react-native';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Words } from '@/ui/words';
import { type Manner, practiceBoxOf } from './practice-box';

const MANNERS = [
  { value: 'perfect', label: 'Never errs' },
  { value: 'usual', label: 'As usual' },
  { value: 'rough', label: 'Bad plug' },
] as const;

/** How the simulated bench box of the practice engine behaves, once it is plugged in at a station. */
export function BoxTools({ id }: { readonly id: string }) {
  const [manner, setManner] = useState<Manner>('usual');
  const [cable, setCable] = useState<'in' | 'out'>('in');
  const tell = (order: object): void => practiceBoxOf(id)?.say(order);
  return (
    <View className="gap-3">
      <Words look="soft">
        “Read by an instrument”, at Zero and at Read, plugs a simulated box in: an encoder on the crank, an indicator on
        each lifter. Its lines go through the server, as those of a real one do.
      </Words>
      <Choice
        testID="box-manner"
        label="It reads"
        options={MANNERS}
        value={manner}
        onChange={(value) => {
          setManner(value);
          tell({ manner: value });
        }}
        hint="A bad plug loses one line in ten and damages another. No damaged line is ever believed."
      />
      <View className="items-start">
        <QuietButton
          testID="box-cable"
          label={cable === 'in' ? 'Pull its cable' : 'Push its cable in'}
          onPress={() => {
            const next = cable === 'in' ? 'out' : 'in';
            setCable(next);
            tell({ cable: next });
          }}
        />
      </View>
    </View>
  );
}
