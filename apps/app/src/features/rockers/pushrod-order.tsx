import { View } from 'react-native';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { type LengthFamily, type LengthUnit, typedLength } from '@yosoku/core/units/length';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { useDraft } from '@/store/use-draft';
import { useStation } from '@/logbook/station';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { ROCKERS } from '@yosoku/core/record/entries/limits';

type Finding = Report['rockers']['valves'][number];
type Lifter = BodyOf<'pushrod.measured'>['lifter'];

const LIFTERS = [
  { value: 'own', label: 'The one that will run' },
  { value: 'made-solid', label: 'That one, made solid' },
  { value: 'carried-over', label: 'Carried over by the nut’s place' },
  { value: 'other', label: 'Another one' },
] as const satisfies readonly { readonly value: Lifter; readonly label: string }[];
const CLEARS = [
  { value: 'yes', label: 'Clear all the way' },
  { value: 'no', label: 'It touches' },
] as const;
const FIELDS = [
  { field: 'length', label: 'Length at zero lash', hint: '', family: 'dimension', most: ROCKERS.length },
  { field: 'preload', label: 'Preload wanted', hint: '0 with a solid lifter.', family: 'lift', most: ROCKERS.preload },
  { field: 'travel', label: 'Plunger’s travel', hint: 'If known.', family: 'lift', most: ROCKERS.travel },
  {
    field: 'engagement',
    label: 'Thread in the nut',
    hint: 'If measured.',
    family: 'dimension',
    most: ROCKERS.engagement,
  },
  {
    field: 'stud',
    label: 'Stud, across',
    hint: 'The nut wants as much thread.',
    family: 'dimension',
    most: ROCKERS.stud,
  },
] as const;
type Field = (typeof FIELDS)[number]['field'];

type Order = Finding['order'];
const ENTERED = {
  length: 'measured',
  preload: 'wanted',
  travel: 'travel',
  engagement: 'engagement',
  stud: 'stud',
} as const satisfies Record<Field, keyof NonNullable<Order>>;

/** What was entered before, to be corrected. */
function asEntered(order: Order, field: Field, family: LengthFamily, units: LengthUnit): string {
  const mm = order?.[ENTERED[field]] ?? null;
  return mm === null ? '' : typedLength(mm, units, family);
}
const clearsName = (clears: boolean | null): 'yes' | 'no' | undefined =>
  clears === null ? undefined : clears ? 'yes' : 'no';

/** The pushrod that the valves of one kind need, and what to order. */
export function PushrodOrder({ finding: { valve, order } }: { readonly finding: Finding }) {
  const { report, write } = useStation();
  const { build } = report;
  const { units } = build;
  const { draft, change, done } = useDraft(`${build.id}/pushrod/${valve}`);
  const texts = Object.fromEntries(
    FIELDS.map(({ field, family }) => [field, draft[field] ?? asEntered(order, field, family, units)]),
  ) as Record<Field, string>;
  const typed = Object.fromEntries(
    FIELDS.map(({ field, family, most }) => [field, typedLengthOf(texts[field], { units, family, most })]),
  ) as Record<Field, ReturnType<typeof typedLengthOf>>;
  const lifter = LIFTERS.find(({ value }) => value === (draft.lifter ?? order?.lifter))?.value;
  const clears = draft.clears ?? clearsName(order?.clears ?? null);
  const isAsked = draft.asked === 'yes';
  const mm = (field: Field): number | undefined => {
    const length = typed[field];
    return length.state === 'good' ? length.mm : undefined;
  };
  const [preload, travel] = [mm('preload'), mm('travel')];
  const deep =
    preload !== undefined && travel !== undefined && preload >= travel
      ? ({ state: 'wrong', message: 'Deeper than the plunger travels.' } as const)
      : typed.preload;
  const keep = (): void => {
    const length = mm('length');
    const wrong = FIELDS.some(({ field }) => typed[field].state === 'wrong') || deep.state === 'wrong';
    if (length === undefined || length === 0 || preload === undefined || lifter === undefined || wrong) {
      change({ asked: 'yes' });
      return;
    }
    const [engagement, stud] = [mm('engagement'), mm('stud')];
    write('pushrod.measured', {
      replaces: order?.entry ?? null,
      valve,
      length,
      lifter,
      preload,
      ...(travel ? { travel } : {}),
      ...(engagement ? { engagement } : {}),
      ...(stud ? { stud } : {}),
      ...(clears === undefined ? {} : { clears: clears === 'yes' }),
    });
    done();
  };
  const MISSING: Partial<Record<Field, string>> = { length: 'Say what was measured.', preload: 'Say it, 0 for none.' };
  return (
    <View className="gap-3">
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        {FIELDS.map(({ field, label, hint }) => (
          <View key={field} className="grow basis-[150px]">
            <LengthField
              testID={`pushrod-${field}-${valve}`}
              label={label}
              text={texts[field]}
              typed={field === 'preload' ? deep : typed[field]}
              hint={hint}
              missing={isAsked ? MISSING[field] : undefined}
              onChange={(text) => change({ [field]: text })}
              onSubmit={keep}
            />
          </View>
        ))}
      </View>
      <Choice
        lines
        testID={`pushrod-lifter-${valve}`}
        label="Measured with which lifter"
        options={LIFTERS}
        value={lifter}
        onChange={(value) => change({ lifter: value })}
        hint={
          isAsked && lifter === undefined
            ? 'Say which: seats differ in height from lifter to lifter.'
            : 'Seats differ in height from lifter to lifter. Carried over: set with a solid one, leave the nut, put the real one in, and lengthen the checking pushrod until it touches.'
        }
      />
      <Choice
        testID={`pushrod-clears-${valve}`}
        label="Pushrod and head, through the whole lift"
        options={CLEARS}
        value={CLEARS.find(({ value }) => value === clears)?.value}
        onChange={(value) => change({ clears: value })}
      />
      <View className="items-start">
        <QuietButton testID={`pushrod-keep-${valve}`} label="Save the length" onPress={keep} />
      </View>
    </View>
  );
}
