import { UndoButton } from '@/ui/undo-button';
import { useState } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { useShortcuts } from '@/ui/use-shortcuts';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

interface SetTheWheelProps {
  readonly zero: Report['zero'];
  readonly after: string | null;
  readonly onRepeat: () => void;
}

const PARTS = [
  { value: 'wheel', label: 'I moved the wheel' },
  { value: 'pointer', label: 'I moved the pointer' },
] as const;

/** The word that the correction is made, and to which part. */
export function SetTheWheel({ zero, after, onRepeat }: SetTheWheelProps) {
  const { write, undo } = useStation();
  const [moved, setMoved] = useState<'wheel' | 'pointer'>('wheel');
  const right = (zero.correction?.ways ?? []).length === 0;
  const rim = zero.ring.ring === 'rim';
  const done = (): void => {
    if (zero.id) write('zero.set', { zero: zero.id, after, moved: right ? 'nothing' : rim ? 'mark' : moved });
  };
  useShortcuts({ Enter: done, n: done, r: onRepeat, u: () => undo?.() });
  return (
    <View>
      <View className="gap-2 px-4 wide:px-0 pb-3">
        {right || rim ? null : (
          <Choice label="What was moved" hideLabel options={PARTS} value={moved} onChange={setMoved} />
        )}
        <View className="flex-row flex-wrap justify-between gap-x-4">
          {after === null ? (
            <QuietButton label="Read another pass first" testID="repeat" onPress={onRepeat} />
          ) : (
            <View />
          )}
          <UndoButton undo={undo} />
        </View>
      </View>
      <PrimaryButton
        testID="wheel-set"
        label={right ? 'Leave it, and prove it' : rim ? 'The mark is made: now prove it' : 'It is set: now prove it'}
        onPress={done}
      />
    </View>
  );
}

/** What is wrong with the wheel, and the other ways of curing it than the one in the sentence. */
export function OtherWays({ zero }: { readonly zero: Report['zero'] }) {
  const others = (zero.correction?.ways ?? []).slice(1);
  return (
    <View className="gap-2">
      <Words look="label">{zero.correction?.finding ?? ''}</Words>
      {others.length > 0 ? <Words look="soft">Instead of that you can:</Words> : null}
      {others.map((way) => (
        <Words key={way.part}>{way.text}</Words>
      ))}
    </View>
  );
}
