import { UndoButton } from '@/ui/undo-button';
import { TextLink } from '@/ui/text-link';
import { useState } from 'react';
import { View } from 'react-native';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { placeHref } from '@/shell/station-line';
import { useShortcuts } from '@/ui/use-shortcuts';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { leaningOn } from '@/findings/leaning';
import { useStation } from '@/logbook/station';

interface ProvedProps {
  readonly onNext: () => void;
  readonly nextLabel: string;
  readonly onProveAgain: () => void;
  readonly onOtherMethod: () => void;
}

/** The zero stands: go on, prove it again, or say that something was disturbed. */
export function Proved({ onNext, nextLabel, onProveAgain, onOtherMethod }: ProvedProps) {
  const { report, undo } = useStation();
  const [disturbed, setDisturbed] = useState(false);
  const { zero } = report;
  const rough = zero.state === 'rough';
  useShortcuts({ n: onNext, Enter: onNext, u: () => undo?.() });
  if (disturbed) return <Disturbed onDone={() => setDisturbed(false)} />;
  return (
    <View>
      <View className="flex-row flex-wrap justify-between gap-x-4 px-4 wide:px-0 pb-2">
        <QuietButton label="Prove it once more" testID="prove-again" onPress={onProveAgain} />
        {rough ? (
          <QuietButton label="By another method" testID="by-other-method" onPress={onOtherMethod} />
        ) : (
          <QuietButton label="Something was disturbed" testID="disturbed" onPress={() => setDisturbed(true)} />
        )}
        <UndoButton undo={undo} />
      </View>
      <PrimaryButton testID="next" label={rough ? 'Go on anyway' : nextLabel} onPress={onNext} />
    </View>
  );
}

/** How good the zero is, what would improve it, and where else the crank matters. */
export function ZeroStanding() {
  const { report, write } = useStation();
  const { zero, build } = report;
  const [budget, setBudget] = useState(false);
  const { rebase, uncertainty } = zero;
  return (
    <View className="gap-2">
      {uncertainty?.advice ? <Words look="soft">{uncertainty.advice}</Words> : null}
      {rebase ? (
        <Notice
          kind="warning"
          testID="rebase"
          message={`The new zero shows that the wheel had moved ${computedDegrees(Math.abs(rebase.by), 2)}.`}
          remedy={`${rebase.readings.length} readings depend on the old TDC. If nothing but the wheel had moved, and it had moved before they were taken, they can be counted from where it really stood. Otherwise read them again.`}
        >
          <View className="items-start">
            <QuietButton
              testID="rebase-do"
              label="Only the wheel had moved: re-base them"
              onPress={() => write('readings.rebased', rebase)}
            />
          </View>
        </Notice>
      ) : null}
      <View className="flex-row flex-wrap gap-x-4">
        {uncertainty ? (
          <QuietButton label={budget ? 'Hide how good it is' : 'How good is it?'} onPress={() => setBudget(!budget)} />
        ) : null}
        <TextLink href={placeHref(build.id, 'crank')} testID="to-crank" className="min-h-[44px] px-2 py-3">
          Which TDC, marks, piston travel
        </TextLink>
      </View>
      {budget && uncertainty ? (
        <View testID="budget">
          {uncertainty.budget.map((each) => (
            <View
              key={each.from}
              className="min-h-[34px] flex-row items-center justify-between gap-3 border-b border-hairline"
            >
              <Words look="soft">{each.from}</Words>
              <Words look="figure">{computedDegrees(each.standard, 3)}</Words>
            </View>
          ))}
          <Words look="soft" className="pt-1">
            Standard uncertainties at the crank; together ±{computedDegrees(uncertainty.expanded, 2)}, which covers the
            truth 95 times in 100. What was not given was taken as usual: 230 mm wheel in degrees, 0.0005 in or 0.01 mm
            indicator.
          </Words>
        </View>
      ) : null}
    </View>
  );
}

const WHAT = [
  { value: 'wheel', label: 'The wheel' },
  { value: 'pointer', label: 'The pointer' },
  { value: 'fixing', label: 'What they are fixed to' },
] as const;
const WHEN = [
  { value: 'before', label: 'Perhaps before my readings' },
  { value: 'just-now', label: 'Just now, after them' },
] as const;

/** What was disturbed, and whether the readings taken until then still stand. Taking the drive apart with the wheel left alone is no disturbance. */
function Disturbed({ onDone }: { readonly onDone: () => void }) {
  const { report, write } = useStation();
  const { zero } = report;
  const [what, setWhat] = useState<'wheel' | 'pointer' | 'fixing'>('wheel');
  const [when, setWhen] = useState<'before' | 'just-now'>('before');
  const leaning = leaningOn(report, zero.setting);
  const say = (): void => {
    if (zero.setting === null) return;
    write('zero.disturbed', { setting: zero.setting, what, keeps: when === 'just-now' ? leaning : [] });
    onDone();
  };
  useShortcuts({ Enter: say, Escape: onDone });
  return (
    <View>
      <View className="gap-3 border-t border-hairline px-4 wide:px-0 pb-3 pt-3">
        <Choice testID="disturbed-what" label="What was disturbed" options={WHAT} value={what} onChange={setWhat} />
        {leaning.length > 0 ? (
          <Choice testID="disturbed-when" label="When" options={WHEN} value={when} onChange={setWhen} />
        ) : null}
        <Words look="soft">
          TDC is not valid from then on; readings that depend on it are marked, not deleted. Taking the drive apart with
          wheel and pointer left alone does not touch it.
        </Words>
        <View className="items-start">
          <QuietButton label="No, leave it" onPress={onDone} />
        </View>
      </View>
      <PrimaryButton testID="disturbed-say" label="TDC is no longer valid" onPress={say} />
    </View>
  );
}
