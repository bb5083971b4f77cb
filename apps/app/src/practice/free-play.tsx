import { useState } from 'react';
import { View } from 'react-native';
import type { OwnTwist } from '@yosoku/core/practice/make-scenario';
import type { PracticeBase } from '@yosoku/core/practice/scenario';
import { typedFigure } from '@/forms/typed-figure';
import { PrimaryButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const LIFTERS = [
  { value: 'solid', label: 'Follow the lobe' },
  { value: 'bleeding', label: 'Bleed down' },
  { value: 'sticking', label: 'Stay up' },
] as const;
const MOST = { ahead: 20, slack: 15 } as const;

/** Free play: what is wrong with the engine is the builder's own choice. */
export function FreePlay({
  base,
  onStart,
}: {
  readonly base: PracticeBase;
  readonly onStart: (own: OwnTwist) => void;
}) {
  const [ahead, setAhead] = useState('0');
  const [slack, setSlack] = useState('2');
  const [lifter, setLifter] = useState<OwnTwist['lifter']>('solid');
  const [asked, setAsked] = useState(false);
  const [aheadBy, slackBy] = [typedFigure(ahead), typedFigure(slack)];
  const wrongAhead = !(Math.abs(aheadBy) <= MOST.ahead) ? `A figure from −${MOST.ahead} to +${MOST.ahead}.` : undefined;
  const wrongSlack = !(slackBy >= 0 && slackBy <= MOST.slack) ? `A figure from 0 to ${MOST.slack}.` : undefined;
  return (
    <View className="gap-4">
      <Words look="soft">{`On the ${base.name}. Degrees of the crank.`}</Words>
      <TextField
        testID="free-ahead"
        label="The cam sits ahead of its card by (minus: late)"
        value={ahead}
        onChange={setAhead}
        error={asked ? wrongAhead : undefined}
      />
      <TextField
        testID="free-slack"
        label="Slack in the timing drive"
        value={slack}
        onChange={setSlack}
        error={asked ? wrongSlack : undefined}
      />
      <Choice testID="free-lifter" label="The lifters" options={LIFTERS} value={lifter} onChange={setLifter} />
      <PrimaryButton
        testID="begin-free"
        label="Begin free play"
        onPress={() => {
          setAsked(true);
          if (!wrongAhead && !wrongSlack) onStart({ ahead: aheadBy, slack: slackBy, lifter });
        }}
      />
    </View>
  );
}
