import { Controller, type UseFormReturn } from 'react-hook-form';
import { View } from 'react-native';
import { READ_METHODS, RULING_METHODS } from '@yosoku/core/measure/read-methods';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import type { LengthUnit } from '@yosoku/core/units/length';
import { ADVICE_BY_USE, USUAL_LIMITS } from '@yosoku/core/verdict/limits';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { Words } from '@/ui/words';
import { CardField } from './card-field';
import type { CardForm } from './typed-card';

const TARGETS = [
  { value: 'card', label: 'As the card' },
  { value: 'ahead-of-card', label: 'Ahead of card' },
  { value: 'centreline', label: 'At a centreline' },
] as const;
const JUDGED_BY = [
  { value: 'any', label: 'Everything that was measured, weighed together' },
  ...RULING_METHODS.map((value) => ({ value, label: READ_METHODS[value].name })),
] as const;

const EXHAUST_TARGETS = [{ value: 'with-intake', label: 'As far ahead as the intake' }, ...TARGETS] as const;

interface TargetFieldsProps {
  readonly form: UseFormReturn<CardForm>;
  readonly units: LengthUnit;
  /** Each valve has a camshaft of its own. */
  readonly twin: boolean;
}

/** Where the cam shall sit, kept apart from what its card says. */
export function TargetFields({ form, units, twin }: TargetFieldsProps) {
  const values = form.watch();
  const field = (name: 'advance' | 'wanted' | 'exAdvance' | 'exWanted' | 'limit', label: string, hint?: string) => (
    <CardField form={form} units={units} name={name} label={label} hint={hint} />
  );
  const straightUp = values.kind === 'centreline' && values.wanted === '' && values.lsa !== '';
  return (
    <View className="gap-5">
      <Words look="title" level={2} className="pt-2">
        Target
      </Words>
      <Controller
        control={form.control}
        name="kind"
        render={({ field: { value, onChange } }) => (
          <Choice
            label={twin ? 'Target of the intake cam' : 'Target'}
            testID="target-kind"
            options={TARGETS}
            value={TARGETS.find((each) => each.value === value)?.value}
            onChange={onChange}
          />
        )}
      />
      {values.kind === 'ahead-of-card'
        ? field('advance', 'Degrees ahead of the card', 'Crank degrees. A minus sign sets it behind the card.')
        : null}
      {values.kind === 'centreline'
        ? field(
            'wanted',
            'Intake centreline wanted, °ATDC',
            straightUp
              ? `Straight up is at the LSA, ${values.lsa}°.`
              : 'Straight up is where ICL and LSA are the same.',
          )
        : null}
      {twin ? (
        <>
          <Controller
            control={form.control}
            name="exKind"
            render={({ field: { value, onChange } }) => (
              <Choice
                label="Target of the exhaust cam"
                testID="target-exhaust"
                options={EXHAUST_TARGETS}
                value={EXHAUST_TARGETS.find((each) => each.value === value)?.value}
                onChange={onChange}
              />
            )}
          />
          {values.exKind === 'ahead-of-card'
            ? field(
                'exAdvance',
                'Exhaust: degrees ahead of the card',
                'Crank degrees. A minus sign sets it behind the card.',
              )
            : null}
          {values.exKind === 'centreline'
            ? field('exWanted', 'Exhaust centreline wanted, °BTDC', 'A larger one is an earlier cam.')
            : null}
        </>
      ) : null}
      <View className="gap-1">
        {field('limit', 'Limit, ± crank degrees', 'As closely as the cam shall sit. Common practice:')}
        <View className="flex-row flex-wrap gap-x-5">
          {USUAL_LIMITS.map(({ use, limit }) => (
            <QuietButton
              key={use}
              testID={`limit-${limit}`}
              label={`${use} ±${wheelDegrees(limit)}`}
              onPress={() => form.setValue('limit', String(limit), { shouldDirty: true, shouldValidate: true })}
            />
          ))}
        </View>
      </View>
      <ByUse />
      <More label="What it is judged by" testID="card-judged-by">
        <Controller
          control={form.control}
          name="judgedBy"
          render={({ field: { value, onChange } }) => (
            <View role="radiogroup" aria-label="What it is judged by" className="gap-1">
              {JUDGED_BY.map((each) => (
                <Choice
                  key={each.value}
                  label={each.label}
                  hideLabel
                  options={[each]}
                  value={value === each.value ? each.value : undefined}
                  onChange={onChange}
                />
              ))}
            </View>
          )}
        />
      </More>
    </View>
  );
}

/** What is often done, by what the engine is for. */
const ByUse = () => (
  <More label="Where it is often set, by what it is for" testID="card-by-use">
    {ADVICE_BY_USE.map(({ use, words }) => (
      <View key={use}>
        <Words look="label">{use}</Words>
        <Words look="soft">{words}</Words>
      </View>
    ))}
    <Words look="soft">Common practice, no promise: the cam grinder and the engine maker have the last word.</Words>
  </More>
);
