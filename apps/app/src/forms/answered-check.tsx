import { type ReactNode, useState } from 'react';
import { View } from 'react-native';
import type { CheckName } from '@yosoku/core/prepare/checks';
import type { SignCheckName } from '@yosoku/core/sign/sign-checks';
import { cutText } from '@yosoku/core/units/text';
import { CheckSketch } from '@/pictures/check-sketch';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

interface AnsweredCheckProps {
  /** Which check it is, for its sketch. */
  readonly check: CheckName | SignCheckName;
  readonly title: string;
  readonly why: string;
  readonly state: 'due' | 'done' | 'skipped';
  readonly reason: string | null;
  /** Where a half-typed reason is kept. */
  readonly place: string;
  /** What its parts are found by in the checks. */
  readonly testIDs: { readonly line: string; readonly reason: string; readonly skip: string; readonly done: string };
  readonly onAnswer: (result: 'done' | 'skipped', reason?: string) => void;
  /** Nothing may be answered now. */
  readonly closed?: boolean;
  readonly children?: ReactNode;
}

const LONGEST_REASON = 200;
/** Side of the sketch, pixels. */
const SKETCH = 56;

/** Something to be looked at: done, or skipped with a reason that stands on the sheet. */
export function AnsweredCheck(props: AnsweredCheckProps) {
  const { check, title, why, state, reason, place, testIDs, onAnswer, closed = false, children } = props;
  const { draft, change, done } = useDraft<'text'>(place);
  const typed = draft.text;
  const [asked, setAsked] = useState(false);
  const skipping = typed !== undefined;
  const answer = (result: 'done' | 'skipped', said?: string): void => {
    onAnswer(result, said);
    done();
    setAsked(false);
  };
  const skip = (): void => {
    const said = cutText((typed ?? '').trim(), LONGEST_REASON);
    if (said === '') setAsked(true);
    else answer('skipped', said);
  };
  return (
    <View role="listitem" testID={testIDs.line} className="gap-1 border-t border-hairline py-3">
      <View className="flex-row gap-3">
        <CheckSketch check={check} size={SKETCH} />
        <View className="shrink grow gap-1">
          <Words look="label">{title}</Words>
          <Words look="soft">{why}</Words>
        </View>
      </View>
      {children}
      {skipping ? (
        <TextField
          testID={testIDs.reason}
          label="Why it is skipped"
          value={typed}
          onChange={(text) => change({ text })}
          error={asked && typed.trim() === '' ? 'Say why: it stands on the sheet.' : undefined}
          onSubmitEditing={skip}
        />
      ) : null}
      <View className="flex-row flex-wrap items-center justify-between gap-x-4">
        <Standing state={state} reason={reason} />
        <View className={closed ? 'hidden' : 'flex-row'}>
          {state === 'skipped' ? null : (
            <QuietButton
              label={skipping ? 'Skip it' : 'Skip'}
              testID={testIDs.skip}
              onPress={() => (skipping ? skip() : change({ text: '' }))}
            />
          )}
          {state === 'done' ? null : <QuietButton label="Done" testID={testIDs.done} onPress={() => answer('done')} />}
        </View>
      </View>
    </View>
  );
}

/** How it was answered. */
function Standing({ state, reason }: Pick<AnsweredCheckProps, 'state' | 'reason'>) {
  if (state === 'due') return <View />;
  const isDone = state === 'done';
  return (
    <Words look="label" tone={isDone ? 'intake' : 'soft'} className="py-2">
      {isDone ? 'done' : `skipped: ${reason ?? ''}`}
    </Words>
  );
}
