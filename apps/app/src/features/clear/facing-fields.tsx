import { View } from 'react-native';
import type { Valve } from '@yosoku/core/cam/card';
import type { BodyOf } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { POCKETS } from '@yosoku/core/clearance/valve-to-piston';
import { typedLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { AngleField } from '@/forms/angle-field';
import { typedAngleOf } from '@/forms/typed-figure';
import { LengthField } from '@/forms/length-field';
import { lengthIn, typedLengthOf } from '@/forms/typed-length';
import { useStation } from '@/logbook/station';

type Facing = NonNullable<BodyOf<'clearance.set-up'>['intake']>;
type Finding = Report['clearance']['valves'][number];

const POCKET_LABELS: Readonly<Record<(typeof POCKETS)[number], string>> = {
  parallel: 'Pocket parallel to the valve',
  flat: 'Flat crown',
  unknown: 'Not known',
};
const POCKET_CHOICES = POCKETS.map((value) => ({ value, label: POCKET_LABELS[value] }));
const STEEPEST = 60;

interface FacingFieldsProps {
  readonly valve: Valve;
}

/** How a valve and its piston face each other, and how near they may come. */
export function FacingFields({ valve }: FacingFieldsProps) {
  const { report, write } = useStation();
  const { build, clearance } = report;
  const { units } = build;
  const own = clearance.valves.find((each) => each.valve === valve);
  const { draft, change, done } = useDraft<'angle' | 'pocket' | 'minimum'>(`${build.id}/facing/${valve}`);
  const text = {
    angle: draft.angle ?? (own?.angle == null ? '' : String(own.angle)),
    pocket: draft.pocket ?? own?.pocket ?? 'unknown',
    minimum: draft.minimum ?? typedLength(own?.minimum ?? 2, units),
  };
  const angle = typedAngleOf(text.angle, STEEPEST);
  const typed = typedLengthOf(text.minimum, {
    units,
    family: 'lift',
    misfit: (mm) => (mm > 0 && mm <= 20 ? null : 'More than 0, and at most 20 mm.'),
  });
  const minimum = lengthIn(typed);
  const keep = (): void => {
    if (angle === null || minimum === null) return;
    const other: Valve = valve === 'intake' ? 'exhaust' : 'intake';
    const theirs = facingOf(clearance.valves.find((each) => each.valve === other));
    write('clearance.set-up', {
      replaces: clearance.entry,
      [valve]: { angle, pocket: pocketOf(text.pocket), minimum },
      ...(theirs ? { [other]: theirs } : {}),
    });
    done();
  };
  return (
    <View className="gap-3">
      <View className="flex-row gap-4">
        <View className="grow basis-0">
          <AngleField
            testID={`angle-${valve}`}
            label="Valve to bore, degrees"
            text={text.angle}
            most={STEEPEST}
            onChange={(angle) => change({ angle })}
            hint="0 where the valve stands upright."
          />
        </View>
        <View className="grow basis-0">
          <LengthField
            testID={`minimum-${valve}`}
            label="Least clearance wanted"
            text={text.minimum}
            typed={typed}
            onChange={(minimum) => change({ minimum })}
            missing="Enter the least clearance."
          />
        </View>
      </View>
      <Choice
        testID={`pocket-${valve}`}
        label="The piston there"
        options={POCKET_CHOICES}
        value={POCKET_CHOICES.find(({ value }) => value === text.pocket)?.value}
        onChange={(pocket) => change({ pocket })}
        hint="Not known: what leaves less is taken."
      />
      <View className="items-start">
        <QuietButton
          testID={`facing-keep-${valve}`}
          label="Save"
          disabled={angle === null || minimum === null}
          onPress={keep}
        />
      </View>
    </View>
  );
}

const pocketOf = (typed: string): Facing['pocket'] => POCKETS.find((name) => name === typed) ?? 'unknown';

const facingOf = (finding: Finding | undefined): Facing | null =>
  finding && finding.angle !== null ? { angle: finding.angle, pocket: finding.pocket, minimum: finding.minimum } : null;
