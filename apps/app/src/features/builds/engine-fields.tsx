import { Controller, type UseFormReturn } from 'react-hook-form';
import { View } from 'react-native';
import { RINGS, readingAt } from '@yosoku/core/crank/wheel';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import { DegreeWheel } from '@/pictures/degree-wheel';
import { useRoomy } from '@/ui/layout';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { WheelsOfShop } from './wheels-of-shop';
import { type EngineForm, echoLength, engineProblems, ringOf, secondRingOf } from './engine-form';

const ROTATIONS = [
  { value: 'clockwise', label: 'Clockwise' },
  { value: 'counter-clockwise', label: 'Counter-clockwise' },
] as const;
const UNITS = [
  { value: 'in', label: 'Inches' },
  { value: 'mm', label: 'Millimetres' },
] as const;
const SENSES = [
  { value: 'rising', label: 'The numbers rise' },
  { value: 'falling', label: 'The numbers fall' },
] as const;
const CAMS = [
  { value: 'single', label: 'One for both' },
  { value: 'twin', label: 'One each' },
] as const;
const OFFSET_SIDES = [
  { value: 'before', label: 'Where the crankpin comes from' },
  { value: 'after', label: 'Where it goes after TDC' },
] as const;
const RING_OPTIONS = (['0-180', '0-360', '0-90'] as const).map((value) => ({ value, label: RINGS[value].label }));
const SECOND_RING_OPTIONS = [{ value: 'none', label: 'None' }, ...RING_OPTIONS] as const;

/** A field of text, and a choice, of the form: each says what is wrong with it, or how it was understood. */
function fieldsOf(form: UseFormReturn<EngineForm>) {
  const { control } = form;
  const problems = engineProblems(form.watch());
  const text = (
    name: keyof EngineForm,
    label: string,
    extra: { hint?: string; echo?: string | undefined; figures?: boolean } = {},
  ) => (
    <Controller
      control={control}
      name={name}
      rules={{ validate: (value) => engineProblems({ ...form.getValues(), [name]: value })[name] ?? true }}
      render={({ field, fieldState }) => (
        <TextField
          testID={`engine-${name}`}
          label={label}
          value={field.value}
          onChange={field.onChange}
          onBlur={field.onBlur}
          inputMode={extra.figures ? 'decimal' : 'text'}
          error={fieldState.error ? problems[name] : undefined}
          echo={problems[name] ? undefined : extra.echo}
          hint={extra.hint}
        />
      )}
    />
  );
  function choice<T extends string>(
    name: keyof EngineForm,
    label: string,
    options: readonly { readonly value: T; readonly label: string }[],
    hint?: string,
  ) {
    return (
      <Controller
        control={control}
        name={name}
        render={({ field }) => (
          <Choice
            testID={`engine-${name}`}
            label={label}
            options={options}
            value={options.find((each) => each.value === field.value)?.value}
            onChange={field.onChange}
            {...(hint ? { hint } : {})}
          />
        )}
      />
    );
  }
  return { text, choice };
}

type Fields = ReturnType<typeof fieldsOf>;

/** Sides of the picture, pixels. */
const WHEEL = 168;
const SMALL_WHEEL = 140;

/** The wheel is drawn as it is described. */
function WheelAsDescribed({ values }: { readonly values: EngineForm }) {
  const ring = ringOf(values);
  const second = secondRingOf(values);
  const rotation = values.rotation === 'counter-clockwise' ? 'counter-clockwise' : 'clockwise';
  const shown = readingAt(ring, 20);
  return (
    <View className="items-center gap-4 roomy:flex-row">
      <DegreeWheel
        ring={ring}
        others={second ? [second] : []}
        rotation={rotation}
        position={20}
        size={useRoomy() ? WHEEL : SMALL_WHEEL}
        turn="forward"
        figure={wheelDegrees(shown.shows)}
        word=""
        description={`The wheel as described, 20° past TDC: ${wheelDegrees(shown.shows)} under the pointer.`}
      />
      <Words look="soft" className="shrink">
        Your wheel, 20° past TDC. If it does not look like this, change the numbering or the direction above.
      </Words>
    </View>
  );
}

/** What few need: rockers, pin offset, odd firing, and the instruments. */
function MoreOfEngine({ values, fields }: { readonly values: EngineForm; readonly fields: Fields }) {
  const { text, choice } = fields;
  return (
    <More label="Rockers, pin offset, odd firing, and what is measured with" testID="engine-more">
      <View className="flex-row gap-4">
        <View className="grow basis-0">
          {text('ratioIntake', 'Rocker ratio, intake', {
            figures: true,
            hint: 'Of this engine. Empty without rockers.',
          })}
        </View>
        <View className="grow basis-0">{text('ratioExhaust', 'Rocker ratio, exhaust', { figures: true })}</View>
      </View>
      {text('pinOffset', 'Pin offset, if any', { figures: true, echo: echoLength(values.pinOffset, values, 'lift') })}
      {values.pinOffset.trim() === ''
        ? null
        : choice('offsetSide', 'The pin lies', OFFSET_SIDES, 'Seen along the crank, against where the crankpin goes.')}
      {text('firingAngles', 'Firing angles of an odd-fire engine', {
        hint: 'Degrees after the first of the firing order, in its order, like 0 90 360 450. Empty for even firing.',
      })}
      {text('wheelDiameter', 'Diameter of the degree wheel', {
        figures: true,
        echo: echoLength(values.wheelDiameter, values),
        hint: 'A larger wheel reads finer.',
      })}
      {text('graduation', 'Degrees from line to line', { figures: true })}
      {text('pointerGap', 'Gap between pointer and wheel', {
        figures: true,
        echo: echoLength(values.pointerGap, values, 'lift'),
        hint: 'Across a gap the eye can look past the pointer.',
      })}
      {text('resolution', 'Smallest step of the indicator', {
        figures: true,
        echo: echoLength(values.resolution, values, 'lift'),
      })}
    </More>
  );
}

/** What engine stands there and how its wheel is numbered. The wheel is drawn as it is described. */
export function EngineFields({ form }: { readonly form: UseFormReturn<EngineForm> }) {
  const values = form.watch();
  const ring = ringOf(values);
  const second = secondRingOf(values);
  const fields = fieldsOf(form);
  const { text, choice } = fields;

  return (
    <View className="gap-5">
      {text('name', 'What is it', { hint: 'A name that you will know it by, like “Kestrel Point six”.' })}
      {text('cylinders', 'Cylinders', { figures: true })}
      {values.cylinders.trim() === '1' ? null : text('firingOrder', 'Firing order', { hint: 'Like 1-3-4-2.' })}
      {choice(
        'rotation',
        'Which way it runs, seen from the wheel',
        ROTATIONS,
        'It tells: the fan draws air in, the starter turns it that way, and the exhaust valve closes before the intake opens. Seen from the flywheel end it turns the other way.',
      )}
      {choice('ring', 'The degree wheel is numbered', RING_OPTIONS)}
      {ring.ring === '0-360' ? choice('sense', 'Turning it the way it runs, under the pointer', SENSES) : null}
      {choice(
        'secondRing',
        'Other numbers on the same wheel',
        SECOND_RING_OPTIONS.filter(({ value }) => value !== ring.ring || value === '0-360'),
        'Many wheels have two rings, or numbers on both sides: one for centrelines, one for events. A tap at the keypad then says which was read.',
      )}
      {second?.ring === '0-360' && ring.ring !== '0-360'
        ? choice('secondSense', 'Turning it the way it runs, those rise or fall', SENSES)
        : null}
      <WheelAsDescribed values={values} />
      <WheelsOfShop form={form} />
      {choice('cams', 'Camshafts, for intake and exhaust', CAMS)}
      {values.cams === 'twin'
        ? text('secondBank', 'Two banks: a cylinder of the second one', {
            figures: true,
            hint: 'Its cams are measured there. Empty: one bank.',
          })
        : null}
      {choice('units', 'Indicator and card are in', UNITS)}
      <View className="flex-row gap-4">
        <View className="grow basis-0">
          {text('stroke', 'Stroke, if known', { figures: true, echo: echoLength(values.stroke, values) })}
        </View>
        <View className="grow basis-0">
          {text('rod', 'Rod, if known', {
            figures: true,
            echo: echoLength(values.rod, values),
            hint: 'Centre to centre.',
          })}
        </View>
      </View>
      <More label="Bore and compression, for what the cylinder traps" testID="engine-compression-more">
        {text('bore', 'Bore', { figures: true, echo: echoLength(values.bore, values) })}
        <View className="flex-row gap-4">
          <View className="grow basis-0">
            {text('compression', 'Compression ratio', { figures: true, hint: 'Static, like 10.5.' })}
          </View>
          <View className="grow basis-0">
            {text('chamber', 'or chamber, cm³', { figures: true, hint: 'All above the piston at TDC.' })}
          </View>
        </View>
      </More>
      <MoreOfEngine values={values} fields={fields} />
    </View>
  );
}
