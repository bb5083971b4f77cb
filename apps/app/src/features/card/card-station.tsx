import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Controller } from 'react-hook-form';
import { View } from 'react-native';
import { centrelineRemark, targetCentreline } from '@yosoku/core/cam/card';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import { parseLength } from '@yosoku/core/units/length';
import { StationBody } from '@/features/builds/station-body';
import { placeHref } from '@/features/builds/station-line';
import type { StationProps } from '@/features/builds/station-screen';
import { PrimaryButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { useDraftForm } from '@/ui/use-draft-form';
import { Words } from '@/ui/words';
import { type CardForm, cardForm, cardProblems, emptyCard, readCard } from './card-form';

const TARGETS = [
  { value: 'card', label: 'As the card' },
  { value: 'ahead-of-card', label: 'Ahead of card' },
  { value: 'centreline', label: 'At a centreline' },
] as const;

/** Card: what the camshaft's card prints, and where the cam shall sit. The two are kept apart. */
export function CardStation({ report, write }: StationProps) {
  const { build, card, target } = report;
  const router = useRouter();
  const form = useDraftForm<CardForm>(`${build.id}/card`, card.entry ? cardForm(report) : emptyCard(report));
  const { control, watch, handleSubmit } = form;
  const [empty, setEmpty] = useState<string | null>(null);
  const values = watch();
  const problems = cardProblems(values, build.units);
  const lift = parseLength(values.lobeLift, { family: 'lift', unit: build.units });
  const read = readCard(values, build.units);
  const aim = read.ok ? targetCentreline(read.card.intake, read.target.target) : null;
  const remark =
    read.ok && read.card.intake.centreline !== undefined ? centrelineRemark(read.card.intake.centreline) : null;

  const save = handleSubmit((typed) => {
    const whole = readCard(typed, build.units);
    if (!whole.ok) {
      setEmpty(whole.message);
      return;
    }
    setEmpty(null);
    write('card.entered', { replaces: card.entry, ...whole.card });
    write('target.set', { replaces: target.entry, ...whole.target });
    form.done();
    router.replace(placeHref(build.id, report.zero.state === 'proved' ? 'read' : 'zero'));
  });

  const field = (name: keyof CardForm, label: string, extra: { hint?: string; echo?: string | undefined } = {}) => (
    <Controller
      control={control}
      name={name}
      rules={{ validate: (value) => cardProblems({ ...values, [name]: value }, build.units)[name] ?? true }}
      render={({ field: { value, onChange, onBlur }, fieldState }) => (
        <TextField
          testID={`card-${name}`}
          label={label}
          value={value}
          onChange={onChange}
          onBlur={onBlur}
          inputMode={name === 'name' ? 'text' : 'decimal'}
          error={fieldState.error ? problems[name] : undefined}
          echo={problems[name] ? undefined : extra.echo}
          hint={extra.hint}
        />
      )}
    />
  );

  return (
    <StationBody footer={<PrimaryButton testID="card-save" label="Keep card and target" onPress={() => void save()} />}>
      <View className="max-w-[560px] gap-5 px-4 wide:px-0 pb-5 pt-4">
        <Words look="title" level={1}>
          What the card says
        </Words>
        {field('name', 'Name or number on the card', { hint: 'May stay empty.' })}
        {field('centreline', 'Intake centreline, °ATDC', {
          hint: 'The card may call it intake lobe centre, or give it with the installation notes.',
        })}
        {remark ? <Notice kind="warning" message={remark} /> : null}
        {field('lobeLift', 'Intake lobe lift', {
          hint:
            build.units === 'in'
              ? 'At the lobe, before the rocker. 330, .330 and 0.330 are the same.'
              : 'At the lobe, before the rocker, in mm.',
          echo: values.lobeLift && lift.ok ? lift.understood : undefined,
        })}
        <Words look="title" level={2} className="pt-2">
          Where it shall sit
        </Words>
        <Controller
          control={control}
          name="kind"
          render={({ field: { value, onChange } }) => (
            <Choice
              label="Target"
              testID="target-kind"
              options={TARGETS}
              value={TARGETS.find((each) => each.value === value)?.value}
              onChange={onChange}
            />
          )}
        />
        {values.kind === 'ahead-of-card'
          ? field('advance', 'Degrees ahead of the card', {
              hint: 'Crank degrees. A minus sign sets it behind the card.',
            })
          : null}
        {values.kind === 'centreline' ? field('wanted', 'Intake centreline wanted, °ATDC') : null}
        {field('limit', 'Limit, ± crank degrees', {
          hint: '½° for competition; 1 to 2° is accepted on a mild street cam.',
        })}
        {aim ? (
          <Words look="sentence" testID="aim">
            {aim.ok
              ? `Aim: intake centreline ${wheelDegrees(aim.centreline)} ATDC, ±${wheelDegrees(read.ok ? read.target.limit : 0)}.`
              : `${aim.problem.message} ${aim.problem.remedy}`}
          </Words>
        ) : null}
        {empty ? <Notice kind="danger" message={empty} testID="card-empty" /> : null}
      </View>
    </StationBody>
  );
}
