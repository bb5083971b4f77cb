import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { MID_LIFTS, type MidLift } from '@yosoku/core/valve-train/pushrod-trials';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { useDraft } from '@/store/use-draft';
import { useStation } from '@/logbook/station';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { Words } from '@/ui/words';
import { PatternPhoto, measuredOnPhoto } from './pattern-photo';
import { MOST_LIFT, ROCKERS } from '@yosoku/core/record/entries/limits';

type Finding = Report['rockers']['valves'][number];

const SEEN: Readonly<Record<MidLift, string>> = { right: 'Square', above: 'Roller still above', below: 'Roller below' };
const SEEN_CHOICES = MID_LIFTS.map((value) => ({ value, label: SEEN[value] }));
const LONGEST = 600;

/** A place beside the middle of the tip: it may lie on either side. */
function typedFigureOf(text: string, units: 'in' | 'mm') {
  const sign = /^\s*[-−]/.test(text) ? -1 : 1;
  const typed = typedLengthOf(text.replace(/^\s*[-−+]/, ''), { units, family: 'lift', most: ROCKERS.aside });
  return typed.state === 'good' ? { ...typed, mm: sign * typed.mm } : typed;
}

/** A length that is tried, and what it shows. */
export function RockerTrial({ finding }: { readonly finding: Finding }) {
  const { report, write } = useStation();
  const { rockers, build } = report;
  const { units } = build;
  const { valve } = finding;
  const { draft, change, done } = useDraft(`${build.id}/rocker-trial/${valve}`);
  const isStud = rockers.mounted === 'stud';
  const at = (field: string, family: 'lift' | 'dimension', most: number) =>
    typedLengthOf(draft[field] ?? '', { units, family, most });
  const length = at('length', isStud ? 'dimension' : 'lift', LONGEST);
  const pattern = at('pattern', 'lift', ROCKERS.pattern);
  const lift = at('lift', 'lift', MOST_LIFT);
  const away = typedFigureOf(draft.offset ?? '', units);
  const seen = MID_LIFTS.find((each) => each === draft.seen);
  const isAsked = draft.asked === 'yes';
  const wide =
    pattern.state === 'good' && rockers.tip !== null && pattern.mm > rockers.tip
      ? ({ state: 'wrong', message: 'Wider than the tip. Measure it again.' } as const)
      : pattern;
  const nothing = pattern.state === 'empty' && lift.state === 'empty' && seen === undefined;
  const keep = (): void => {
    const wrong = [length, wide, lift, away].some(({ state }) => state === 'wrong');
    if (length.state !== 'good' || wrong || nothing) {
      change({ asked: 'yes' });
      return;
    }
    write('rocker.tried', {
      valve,
      cylinder: 1,
      length: length.mm,
      ...(pattern.state === 'good' ? { pattern: pattern.mm } : {}),
      ...(away.state === 'good' && pattern.state === 'good' ? { offset: away.mm } : {}),
      ...(lift.state === 'good' ? { lift: lift.mm } : {}),
      ...(seen === undefined ? {} : { seen }),
      ...(pattern.state === 'good' && measuredOnPhoto(draft)),
    });
    done();
  };
  const field = (name: string, label: string, typed: typeof length, hint: string, missing?: string) => (
    <View className="grow basis-[150px]">
      <LengthField
        testID={`trial-${name}-${valve}`}
        label={label}
        text={draft[name] ?? ''}
        typed={typed}
        hint={hint}
        missing={missing}
        onChange={(text) => change(name === 'pattern' ? { pattern: text, photographed: '' } : { [name]: text })}
        onSubmit={keep}
      />
    </View>
  );
  return (
    <View className="gap-3">
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        {field(
          'length',
          isStud ? 'Length tried' : 'Shims tried',
          length,
          isStud ? 'Of the adjustable pushrod.' : '0 for none.',
          isAsked ? 'Say what was tried.' : undefined,
        )}
        {field('pattern', 'Pattern, wide', wide, 'Along the rocker, on the tip.')}
        {field('offset', 'Its middle, off the tip’s', away, '− toward the pivot.')}
        {field('lift', 'Lift at the valve', lift, 'If measured.')}
      </View>
      <More testID={`pattern-more-${valve}`} label="Measure the pattern on a photo">
        <PatternPhoto valve={valve} draft={draft} change={change} />
      </More>
      <Choice
        testID={`trial-seen-${valve}`}
        label="The arm at mid-lift"
        options={SEEN_CHOICES}
        value={seen}
        onChange={(value) => change({ seen: value })}
        hint="Square to the stem, or where its roller stands beside that. Nothing: nobody looked."
      />
      {isAsked && nothing ? (
        <Words tone="danger" role="alert">
          Say what it showed: the pattern, the arm at mid-lift, or the lift.
        </Words>
      ) : null}
      <View className="items-start">
        <QuietButton testID={`trial-keep-${valve}`} label="Record this trial" onPress={keep} />
      </View>
    </View>
  );
}
