import { Controller, type UseFormReturn } from 'react-hook-form';
import { View } from 'react-native';
import { EVENT_NAMES, SIDE_WORDS, VALVES, type Valve } from '@yosoku/core/cam/card';
import type { LengthUnit } from '@yosoku/core/units/length';
import { Choice } from '@/ui/choice';
import { More } from '@/ui/more';
import { Words } from '@/ui/words';
import { CardField } from './card-field';
import {
  type CardField as FieldName,
  type CardForm,
  TDC_ROWS,
  TIMING_ROWS,
  type TimingRow,
  fieldOf,
  hasTiming,
} from './typed-card';

const WHOSE = [
  { value: 'lobe', label: 'Lobe or lifter' },
  { value: 'valve', label: 'Valve' },
] as const;

/** What a centreline may be the middle of. */
const MEANS = [
  { value: 'unsaid', label: 'Not said' },
  { value: 'events', label: 'Middle of the events' },
  { value: 'nose', label: 'Peak, by equal drop' },
] as const;

interface CardFieldsProps {
  readonly form: UseFormReturn<CardForm>;
  readonly units: LengthUnit;
  /** What is offered for the name that is typed. */
  readonly offers: React.ReactNode;
}

type FieldFor = (
  name: FieldName,
  label: string,
  more?: { readonly hint?: string; readonly length?: boolean },
) => React.JSX.Element;

/** Everything that a card may print. Figures that many cards lack are folded away. */
export function CardFields({ form, units, offers }: CardFieldsProps) {
  const values = form.watch();
  const field: FieldFor = (name, label, more = {}) => (
    <CardField form={form} units={units} name={name} label={label} {...more} />
  );
  return (
    <View className="gap-5">
      {field('name', 'Name or number on the card', { hint: 'May stay empty.' })}
      {offers}
      <Group title="Centrelines">
        <Pair>
          {field('centreline', 'Intake, ICL °ATDC')}
          {field('ex centreline', 'Exhaust, ECL °BTDC')}
        </Pair>
        <Pair>
          {field('lsa', 'LSA, cam degrees')}
          {field('groundIn', 'Ground-in advance')}
        </Pair>
        <Controller
          control={form.control}
          name="means"
          render={({ field: { value, onChange } }) => (
            <Choice
              testID="centreline-means"
              label="The card’s centreline is"
              options={MEANS}
              value={MEANS.find((each) => each.value === value)?.value}
              onChange={onChange}
              hint="On a lobe that leans the two differ by a degree or so. Most cards do not say."
            />
          )}
        />
      </Group>
      <Group title="Lift at the lobe">
        <Pair>
          {field('lobeLift', 'Intake lobe lift', { length: true })}
          {field('ex lobeLift', 'Exhaust lobe lift', { length: true })}
        </Pair>
      </Group>
      <Timing row={0} title="Timing at a checking height" field={field} form={form} values={values} />
      <More label="Advertised duration and other heights" testID="card-more-timing">
        {TIMING_ROWS.slice(1).map((row) => (
          <Timing
            key={row}
            row={row}
            title={row === 1 ? 'Advertised, or another height' : 'Another height'}
            field={field}
            form={form}
            values={values}
          />
        ))}
      </More>
      <More label="Events in inches of the flywheel’s rim" testID="card-more-flywheel">
        <Words look="soft">
          Where the manual says “opens 1⅞ in before”: give the flywheel’s diameter, and type the events above like that,
          1 7/8 in before.
        </Words>
        {field('flywheel', 'Diameter of the flywheel')}
      </More>
      <More label="Lift at the valve, rocker ratio, lash" testID="card-more-lift">
        {(
          [
            ['valveLift', 'valve lift', true],
            ['ratio', 'ratio of the card', false],
            ['lashHot', 'lash, hot', true],
            ['lashCold', 'lash, cold', true],
          ] as const
        ).map(([name, label, length]) => (
          <Pair key={name}>
            {VALVES.map((valve) => (
              <View key={valve}>{field(fieldOf(valve, name), `${NAMES[valve]} ${label}`, { length })}</View>
            ))}
          </Pair>
        ))}
      </More>
      <More label="Lift at TDC" testID="card-more-tdc">
        <Words look="soft">
          Lift at the lobe with the piston at the top between exhaust and intake, for one or more centrelines.
        </Words>
        {VALVES.map((valve) =>
          TDC_ROWS.map((row) => (
            <Pair key={`${valve} ${row}`}>
              {field(
                fieldOf(valve, `tdcCentreline${row}`),
                `${EVENT_NAMES[valve].centreline} °${SIDE_WORDS[valve].centreline}`,
              )}
              {field(fieldOf(valve, `tdcLift${row}`), `${NAMES[valve]} lift at TDC`, { length: true })}
            </Pair>
          )),
        )}
      </More>
    </View>
  );
}

const NAMES: Readonly<Record<Valve, string>> = { intake: 'Intake', exhaust: 'Exhaust' };

function Group({ title, children }: { readonly title: string; readonly children: React.ReactNode }) {
  return (
    <View className="gap-3">
      <Words look="heading" level={2}>
        {title}
      </Words>
      {children}
    </View>
  );
}

/** Intake and exhaust side by side. */
function Pair({ children }: { readonly children: readonly React.ReactNode[] }) {
  return (
    <View className="flex-row gap-4">
      {children.map((child, at) => (
        <View key={at} className="shrink grow basis-0">
          {child}
        </View>
      ))}
    </View>
  );
}

interface TimingProps {
  readonly row: TimingRow;
  readonly title: string;
  readonly field: FieldFor;
  readonly form: UseFormReturn<CardForm>;
  readonly values: CardForm;
}

/** Duration and events at one checking height, both valves. */
function Timing({ row, title, field, form, values }: TimingProps) {
  return (
    <Group title={title}>
      <Pair>
        {field(`height${row}`, 'Checking height', {
          length: true,
          hint: row === 0 ? 'Usually 0.050 in or 1.00 mm.' : 'Empty where the card does not say.',
        })}
        <Controller
          control={form.control}
          name={`at${row}`}
          render={({ field: { value, onChange } }) => (
            <Choice
              label="Height of the"
              options={WHOSE}
              value={WHOSE.find((each) => each.value === value)?.value}
              onChange={onChange}
            />
          )}
        />
      </Pair>
      {(['duration', 'opens', 'closes'] as const).map((name) => (
        <Pair key={name}>
          {VALVES.map((valve) => (
            <View key={valve}>
              {field(
                fieldOf(valve, `${name}${row}`),
                name === 'duration'
                  ? `${NAMES[valve]} duration`
                  : `${EVENT_NAMES[valve][name]} °${SIDE_WORDS[valve][name]}`,
              )}
            </View>
          ))}
        </Pair>
      ))}
      {hasTiming(values, row) ? null : (
        <Words look="soft">
          An event on the other side of its centre is typed with a minus sign, or like “5 ATDC”.
        </Words>
      )}
    </Group>
  );
}
