import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { LengthField } from '@/forms/length-field';
import { useDraft } from '@/store/use-draft';
import { useStation } from '@/logbook/station';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import {
  type LengthName,
  type ReadLash,
  VALVE_COUNTS,
  type ValvesName,
  lashForm,
  readLash,
  typedIn,
} from './lash-form';

const ENGINES = [
  { value: 'cold', label: 'Cold' },
  { value: 'hot', label: 'Hot' },
] as const;
const KINDS = [
  { value: 'lash', label: 'Lash, by blades' },
  { value: 'preload', label: 'Hydraulic, by turns' },
] as const;

const VALVES_CHOICES = [
  { value: '2', label: 'Two' },
  { value: '3', label: 'Three, two intakes' },
  { value: '4', label: 'Four' },
  { value: '5', label: 'Five, three intakes' },
] as const satisfies readonly { readonly value: ValvesName; readonly label: string }[];

type Orders = Report['lash']['orders'];

/** What is wanted and in which order, as it is being said: kept on the device key by key. */
export function useLashSetup() {
  const { report, write } = useStation();
  const { build, lash } = report;
  const { draft, change, done } = useDraft(`${build.id}/lash-setup/${lash.job?.id ?? 'first'}`);
  const form = lashForm(draft, report);
  const read = readLash(form, build.units);
  const wish = draft.order ?? lash.job?.order ?? lash.proposal.order;
  const order = lash.orders.find((each) => each.order === wish) ?? lash.orders[0] ?? null;
  return {
    form,
    read,
    order,
    isAsked: draft.asked === 'yes',
    change,
    begin: (): boolean => {
      if (!read.ok || !order) {
        change({ asked: 'yes' });
        return false;
      }
      write('lash.begun', {
        after: lash.job?.id ?? null,
        order: order.order,
        engine: form.engine,
        ...(form.valves === '2' ? {} : { count: VALVE_COUNTS[form.valves] }),
        wanted: read.wanted,
      });
      done();
      return true;
    },
  };
}

type Setup = ReturnType<typeof useLashSetup>;

/** Before the first valve: what is wanted, cold or hot, in which order. */
export function LashSetup({ setup }: { readonly setup: Setup }) {
  const { report } = useStation();
  const { lash } = report;
  const { form, read, order, change, isAsked } = setup;
  const errors = isAsked && !read.ok ? read.errors : {};
  return (
    <View className="gap-5">
      <View className="gap-4 wide:flex-row">
        <View className="wide:grow wide:basis-0">
          <Choice
            testID="lash-kind"
            label="The valves are set"
            options={KINDS}
            value={form.kind}
            onChange={(kind) => change({ kind })}
          />
        </View>
        <View className="wide:grow wide:basis-0">
          <Choice
            testID="lash-engine"
            label="The engine is"
            options={ENGINES}
            value={form.engine}
            onChange={(engine) => change({ engine })}
          />
        </View>
      </View>
      {form.kind === 'lash' ? (
        <LashFields setup={setup} errors={errors} />
      ) : (
        <PreloadFields setup={setup} errors={errors} />
      )}
      {form.kind === 'lash' ? lash.proposal.words.map((words) => <Words key={words}>{words}</Words>) : null}
      <ValvesChoice valves={form.valves} onChange={(valves) => change({ valves })} />
      <OrderChoice orders={lash.orders} order={order} onChange={(name) => change({ order: name })} />
      {lash.seats ? (
        <Words look="soft" testID="seats">
          {lash.seats.words}
        </Words>
      ) : lash.problem ? (
        <Notice kind="warning" message={lash.problem.message} remedy={lash.problem.remedy} testID="seats-unknown" />
      ) : null}
      {form.kind === 'lash'
        ? [lash.effects.intake, lash.effects.exhaust].map((words) =>
            words === null ? null : (
              <Words key={words} look="soft">
                {words}
              </Words>
            ),
          )
        : null}
    </View>
  );
}

interface ValvesChoiceProps {
  readonly valves: ValvesName;
  readonly onChange: (valves: ValvesName) => void;
}

const ValvesChoice = ({ valves, onChange }: ValvesChoiceProps) => (
  <Choice
    testID="lash-valves"
    label="Valves in a cylinder"
    options={VALVES_CHOICES}
    value={valves}
    onChange={onChange}
    {...(valves === '2' ? {} : { hint: 'Those of a kind are numbered from the timing end.' })}
  />
);

type Errors = (ReadLash & { ok: false })['errors'];
interface WantedProps {
  readonly setup: Setup;
  readonly errors: Errors;
  readonly field: LengthName;
  readonly label: string;
  readonly hint?: string;
}

function Wanted({ setup, errors, field, label, hint }: WantedProps) {
  const { units } = useStation().report.build;
  const { form, change } = setup;
  // A figure for the cold engine is no figure for the hot one.
  const key = field === 'intake' || field === 'exhaust' ? `${field}-${form.engine}` : field;
  return (
    <View className="grow basis-[120px]">
      <LengthField
        testID={`lash-${field}`}
        label={label}
        text={form[field]}
        typed={typedIn(form, field, units)}
        missing={errors[field]}
        onChange={(text) => change({ [key]: text })}
        {...(hint === undefined ? {} : { hint })}
      />
    </View>
  );
}

function LashFields(props: { readonly setup: Setup; readonly errors: Errors }) {
  const { engine } = props.setup.form;
  return (
    <View className="flex-row flex-wrap gap-x-4 gap-y-3">
      <Wanted {...props} field="intake" label={`Intake, ${engine}`} />
      <Wanted {...props} field="exhaust" label={`Exhaust, ${engine}`} />
      <Wanted {...props} field="noGo" label="No-go blade thicker by" hint="Nothing: one blade is used." />
    </View>
  );
}

function PreloadFields({ setup, errors }: { readonly setup: Setup; readonly errors: Errors }) {
  return (
    <View className="flex-row flex-wrap gap-x-4 gap-y-3">
      <View className="grow basis-[120px]">
        <TextField
          testID="lash-turns"
          label="Turns past zero lash"
          value={setup.form.turns}
          inputMode="decimal"
          onChange={(turns) => setup.change({ turns })}
          error={errors.turns}
          hint="The maker’s figure. Half a turn is 0.5."
        />
      </View>
      <Wanted
        setup={setup}
        errors={errors}
        field="pitch"
        label="Pitch of the thread"
        hint="If known: then the preload is told as a length."
      />
    </View>
  );
}

interface OrderChoiceProps {
  readonly orders: Orders;
  readonly order: Orders[number] | null;
  readonly onChange: (order: Orders[number]['order']) => void;
}

function OrderChoice({ orders, order, onChange }: OrderChoiceProps) {
  return (
    <View className="gap-2">
      <Choice
        lines
        testID="lash-order"
        label="In which order"
        options={orders.map((each) => ({ value: each.order, label: each.name }))}
        value={order?.order}
        onChange={onChange}
      />
      {order === null ? null : order.caught.length > 0 ? (
        <Notice kind="warning" message={order.name} remedy={order.words} testID="order-words" />
      ) : (
        <Words testID="order-words">{order.words}</Words>
      )}
    </View>
  );
}
