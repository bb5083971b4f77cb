import { View } from 'react-native';
import type { BodyOf } from '@yosoku/core/record/entry';
import { type LengthUnit, typedLength } from '@yosoku/core/units/length';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { useDraft } from '@/store/use-draft';
import { useStation } from '@/logbook/station';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Words } from '@/ui/words';
import { ROCKERS } from '@yosoku/core/record/entries/limits';

type Mounted = BodyOf<'rockers.set-up'>['mounted'];

const MOUNTED = [
  { value: 'stud', label: 'Stud' },
  { value: 'pedestal', label: 'Pedestal' },
  { value: 'shaft', label: 'Shaft' },
] as const;
const FIELDS = [
  { field: 'arm', label: 'Arm, pivot to roller', hint: 'Centre to centre.' },
  { field: 'tip', label: 'Tip of the valve, across', hint: 'Its diameter, for the middle third.' },
  { field: 'step', label: 'Pushrods come in steps of', hint: 'Nothing: made to any length.' },
] as const;

const shown = (mm: number | null, units: LengthUnit): string =>
  mm === null ? '' : typedLength(mm, units, 'dimension');

/** How the rockers are mounted, and what pushrods can be had. */
export function RockerSetup() {
  const { report, write } = useStation();
  const { rockers, build } = report;
  const { units } = build;
  const { draft, change, done } = useDraft(`${build.id}/rockers`);
  const mounted = MOUNTED.find(({ value }) => value === (draft.mounted ?? rockers.mounted))?.value;
  const typed = FIELDS.map(({ field, ...words }) => {
    const text = draft[field] ?? shown(rockers[field], units);
    const length = typedLengthOf(text, { units, family: 'dimension', most: ROCKERS[field] });
    const isZero = length.state === 'good' && length.mm === 0;
    return {
      field,
      ...words,
      text,
      length: isZero ? ({ state: 'wrong', message: 'More than 0, or nothing.' } as const) : length,
    };
  });
  const isAsked = draft.asked === 'yes';
  const [arm, tip, step] = typed.map(({ length }) => length);
  const mmOf = (length: (typeof typed)[number]['length'] | undefined): number | undefined =>
    length?.state === 'good' ? length.mm : undefined;
  const keep = (): void => {
    const armMm = mmOf(arm);
    if (armMm === undefined || mounted === undefined || typed.some(({ length }) => length.state === 'wrong')) {
      change({ asked: 'yes' });
      return;
    }
    const [tipMm, stepMm] = [mmOf(tip), mmOf(step)];
    write('rockers.set-up', {
      replaces: rockers.entry,
      mounted,
      arm: armMm,
      ...(tipMm === undefined ? {} : { tip: tipMm }),
      ...(stepMm === undefined ? {} : { step: stepMm }),
    });
    done();
  };
  return (
    <View className="gap-3">
      <Choice
        testID="rockers-mounted"
        label="The rockers stand on"
        options={MOUNTED}
        value={mounted}
        onChange={(value: Mounted) => change({ mounted: value })}
        hint="On a stud the pushrod’s length sets the geometry; on a pedestal or a shaft shims do, and the pushrod is ordered afterwards."
      />
      {isAsked && mounted === undefined ? (
        <Words tone="danger" role="alert">
          Say what they stand on.
        </Words>
      ) : null}
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        {typed.map(({ field, label, hint, text, length }) => (
          <View key={field} className="grow basis-[150px]">
            <LengthField
              testID={`rockers-${field}`}
              label={label}
              text={text}
              typed={length}
              hint={hint}
              missing={isAsked && field === 'arm' ? 'Measure the arm, or ask its maker.' : undefined}
              onChange={(next) => change({ [field]: next })}
              onSubmit={keep}
            />
          </View>
        ))}
      </View>
      <View className="items-start">
        <QuietButton testID="rockers-keep" label="Save the rockers" onPress={keep} />
      </View>
    </View>
  );
}
