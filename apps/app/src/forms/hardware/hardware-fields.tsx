import { Pressable, View } from 'react-native';
import { questionsOf, reachOf } from '@yosoku/core/timing-set/hardware';
import { signed } from '@yosoku/core/timing-set/kinds/kind';
import { computedDegrees } from '@yosoku/core/units/degrees';
import type { LengthUnit } from '@yosoku/core/units/length';
import { Choice } from '@/ui/choice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { type HardwareForm, KIND_CHOICES, type ReadHardware, kindOfForm, readHardware } from './hardware-form';

const CHOICES = {
  stamped: [
    { value: 'crank', label: 'Crank degrees' },
    { value: 'cam', label: 'Cam degrees' },
  ],
  sense: [
    { value: 'grows-early', label: 'Earlier' },
    { value: 'grows-late', label: 'Later' },
  ],
  scale: [
    { value: 'yes', label: 'Yes' },
    { value: 'no', label: 'No' },
  ],
} as const;

interface HardwareFieldsProps {
  readonly form: HardwareForm;
  readonly units: LengthUnit;
  readonly onChange: (part: Partial<HardwareForm>) => void;
  /** Was keeping it tried? Until then nothing empty is found fault with. */
  readonly asked: boolean;
}

/** A piece of hardware to be described: kind first, then what its maker stamps. */
export function HardwareFields({ form, units, onChange, asked }: HardwareFieldsProps) {
  const kind = kindOfForm(form);
  const read = readHardware(form, units);
  const trouble = (name: keyof HardwareForm): string | undefined =>
    !read.ok && (asked || form[name].trim() !== '') ? read.trouble[name] : undefined;
  return (
    <View className="gap-4">
      <View role="radiogroup" aria-label="Kind of hardware">
        {KIND_CHOICES.map(({ value, label, about }) => (
          <Pressable
            key={value}
            role="radio"
            testID={`kind-${value}`}
            aria-checked={kind === value}
            onPress={() => onChange({ kind: value })}
            className={`min-h-[48px] justify-center border-b border-l-4 border-b-hairline px-3 py-1 ${kind === value ? 'border-l-brass bg-raised' : 'border-l-transparent'}`}
          >
            <Words look="label">{label}</Words>
            {kind === value ? <Words look="soft">{about}</Words> : null}
          </Pressable>
        ))}
      </View>
      <TextField
        testID="hardware-name"
        label="Its name on the shelf"
        value={form.name}
        onChange={(name) => onChange({ name })}
        error={trouble('name')}
      />
      {questionsOf(kind).map(({ name, typed, label, hint }) =>
        typed === 'stamped' || typed === 'sense' || typed === 'scale' ? (
          <View key={name} className="gap-1">
            <Choice
              testID={`hardware-${name}`}
              label={label}
              options={CHOICES[typed]}
              value={CHOICES[typed].find(({ value }) => value === form[name])?.value}
              onChange={(value) => onChange({ [name]: value })}
            />
            {trouble(name) ? (
              <Words look="soft" tone="danger" role="alert">
                {trouble(name)}
              </Words>
            ) : null}
          </View>
        ) : (
          <TextField
            key={name}
            testID={`hardware-${name}`}
            label={label}
            value={form[name]}
            onChange={(value) => onChange({ [name]: value })}
            inputMode={typed === 'count' ? 'numeric' : 'text'}
            error={trouble(name)}
            hint={hint}
          />
        ),
      )}
      <Understood read={read} />
    </View>
  );
}

const MOST_SHOWN = 9;

/** What it can be put to, crank and cam degrees side by side. */
function Understood({ read }: { readonly read: ReadHardware }) {
  if (!read.ok) return null;
  const reach = reachOf(read.hardware);
  if (reach.kind === 'range') {
    const far = Math.abs((reach.to - reach.from) * reach.perUnit);
    return (
      <Words look="soft" testID="understood">
        {`Anywhere over ${computedDegrees(far)} of the crank, which is ${computedDegrees(far / 2)} of the cam.`}
      </Words>
    );
  }
  const middle = Math.floor(reach.positions.length / 2);
  const from = Math.max(0, Math.min(middle - Math.floor(MOST_SHOWN / 2), reach.positions.length - MOST_SHOWN));
  const shown = reach.positions.slice(from, from + MOST_SHOWN);
  const two = (advance: number): string =>
    `${signed(Math.round(100 * advance) / 100)} crank = ${signed(Math.round(50 * advance) / 100)} cam`;
  return (
    <View testID="understood">
      <Words look="soft">
        {`${reach.positions.length} positions${shown.length < reach.positions.length ? ', those in the middle' : ''}:`}
      </Words>
      {shown.map(({ mark, advance }) => (
        <Words key={mark} look="soft">{`${mark}: ${two(advance)} degrees`}</Words>
      ))}
    </View>
  );
}
