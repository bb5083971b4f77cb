import { useState } from 'react';
import { View } from 'react-native';
import { READ_METHODS, READ_METHOD_NAMES } from '@yosoku/core/measure/read-methods';
import { PAPER_SIZES } from '@yosoku/core/paper/drawing';
import type { Report } from '@yosoku/core/report/report';
import { LengthField } from '@/forms/length-field';
import { useDraft } from '@/store/use-draft';
import { openPdf } from '@/sheets/open-pdf';
import { api } from '@/sync/api';
import { PrimaryButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';
import { type LengthName, type PrintForm, printForm, readPrint } from './print-form';
import { PrinterChoice, usePrinter } from './printers';

const WHAT_CHOICES = [
  { value: 'wheel', label: 'Degree wheel' },
  { value: 'tape', label: 'Rim tape' },
  { value: 'worksheet', label: 'Worksheet' },
  { value: 'check', label: 'Printer check' },
] as const;
const PAPER_CHOICES = [
  { value: 'a4', label: PAPER_SIZES.a4.name },
  { value: 'letter', label: PAPER_SIZES.letter.name },
  { value: 'a3', label: PAPER_SIZES.a3.name },
] as const;

/** What is being filled in. */
interface Filling {
  readonly form: PrintForm;
  readonly report: Report | null;
  readonly change: (part: Readonly<Record<string, string>>) => void;
}

/** What can be printed true to scale: of a build, or of none. */
export function PrintBody({ report }: { readonly report: Report | null }) {
  const id = report?.build.id ?? null;
  const { draft, change } = useDraft(`${id ?? 'no-build'}/print`);
  const form = printForm(draft, report?.build.units ?? 'mm');
  const { factor } = usePrinter();
  const [trouble, setTrouble] = useState<string | null>(null);
  const read = readPrint(form, factor, report !== null);
  const print = async (): Promise<void> => {
    setTrouble(read.ok ? null : read.message);
    if (!read.ok) return;
    // The address of the route; what is asked of it was checked by the schema that the server checks by.
    const query = { what: 'check' } as const;
    const address =
      id === null ? api['paper.pdf'].$url({ query }) : api.builds[':id']['paper.pdf'].$url({ param: { id }, query });
    address.search = new URLSearchParams(read.query).toString();
    setTrouble(await openPdf(address));
  };
  const filling: Filling = {
    form,
    report,
    change: (part) => {
      setTrouble(null);
      change(part);
    },
  };
  const Fields = FIELDS[form.what];
  return (
    <View className="gap-5">
      <Choice
        testID="print-what"
        label="On paper"
        lines
        options={WHAT_CHOICES}
        value={form.what}
        onChange={(what) => filling.change({ what })}
      />
      <Fields {...filling} />
      <Choice
        testID="print-paper"
        label="Paper"
        options={PAPER_CHOICES}
        value={form.paper}
        onChange={(paper) => filling.change({ paper })}
      />
      <PrinterChoice isChecking={form.what === 'check'} />
      {trouble ? (
        <Words role="alert" tone="danger" testID="print-trouble">
          {trouble}
        </Words>
      ) : null}
      <PrimaryButton testID="print-go" label="Open it as PDF" onPress={() => void print()} />
      <Words look="soft">
        Print it at 100 %, without “fit to page”. Both lines of 100 mm on the sheet show whether it came out true.
      </Words>
    </View>
  );
}

interface LengthProps extends Filling {
  readonly name: LengthName;
  readonly label: string;
  readonly hint?: string;
}

const Length = ({ form, change, name, label, hint }: LengthProps) => (
  <View className="grow basis-[140px]">
    <LengthField
      testID={`print-${name}`}
      label={label}
      text={form.texts[name]}
      typed={form.typed[name]}
      onChange={(text) => change({ [name]: text })}
      {...(hint === undefined ? {} : { hint })}
    />
  </View>
);

const PLACES = [
  { value: 'none', label: 'Degrees only' },
  { value: 'tdcs', label: 'Firing TDCs too' },
  { value: 'all', label: 'And this cam’s events' },
] as const;
const RINGS = [
  { value: '0-180', label: '0–180 each side' },
  { value: '0-360', label: '0–360' },
  { value: '0-90', label: '0–90' },
] as const;
const SENSES = [
  { value: 'rising', label: 'Rising as it turns' },
  { value: 'falling', label: 'Falling' },
] as const;
const ROTATIONS = [
  { value: 'clockwise', label: 'Clockwise' },
  { value: 'counter-clockwise', label: 'Counter-clockwise' },
] as const;

function WheelFields(filling: Filling) {
  const { form, report, change } = filling;
  return (
    <View className="gap-4">
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        <Length
          {...filling}
          name="diameter"
          label="Wheel, across"
          hint="Larger than the paper: several sheets to be joined."
        />
        <Length {...filling} name="hole" label="Centre hole" hint="0: only a cross." />
        <Length {...filling} name="circle" label="Bolt circle" hint="Nothing: no bolts." />
      </View>
      {form.texts.circle.trim() === '' ? null : (
        <View className="flex-row flex-wrap gap-x-4 gap-y-3">
          <View className="grow basis-[140px]">
            <TextField
              testID="print-bolts"
              label="Bolts"
              value={form.bolts}
              inputMode="numeric"
              onChange={(bolts) => change({ bolts })}
            />
          </View>
          <Length {...filling} name="bolt" label="Bolt hole" />
        </View>
      )}
      {report ? (
        <Choice
          testID="print-places"
          label="Marked on it"
          options={PLACES}
          value={form.places}
          onChange={(places) => change({ places })}
        />
      ) : (
        <>
          <Choice
            testID="print-ring"
            label="Numbered"
            options={RINGS}
            value={form.ring}
            onChange={(ring) => change({ ring })}
          />
          {form.ring === '0-360' ? (
            <Choice
              testID="print-sense"
              label="Numbers"
              options={SENSES}
              value={form.sense}
              onChange={(sense) => change({ sense })}
            />
          ) : null}
          <Choice
            testID="print-rotation"
            label="The engine runs, seen from the wheel"
            options={ROTATIONS}
            value={form.rotation}
            onChange={(rotation) => change({ rotation })}
          />
        </>
      )}
    </View>
  );
}

const MEASURED = [
  { value: 'diameter', label: 'Across' },
  { value: 'round', label: 'Round it, with a tape' },
] as const;
const SPANS = [
  { value: '60', label: '60° either side' },
  { value: '180', label: 'All round' },
] as const;

function TapeFields(filling: Filling) {
  const { form, change } = filling;
  return (
    <View className="gap-4">
      <Choice
        testID="print-measured"
        label="The rim was measured"
        options={MEASURED}
        value={form.measured}
        onChange={(measured) => change({ measured })}
      />
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        <Length {...filling} name="rim" label={form.measured === 'diameter' ? 'Rim, across' : 'Once round the rim'} />
        <Length {...filling} name="thickness" label="Paper and glue, thick" hint="The paper lies outside: it counts." />
      </View>
      <Choice
        testID="print-span"
        label="How far"
        options={SPANS}
        value={form.span}
        onChange={(span) => change({ span })}
      />
    </View>
  );
}

const WHICH = [
  { value: 'readings', label: 'Readings of the cam' },
  { value: 'lash', label: 'Lash' },
  { value: 'pushrods', label: 'Pushrod trials' },
  { value: 'lobes', label: 'Every lobe' },
] as const;

const METHODS = READ_METHOD_NAMES.map((value) => ({ value, label: READ_METHODS[value].name }));

function WorksheetFields({ form, report, change }: Filling) {
  return (
    <View className="gap-2">
      <Choice
        lines
        testID="print-which"
        label="Worksheet"
        options={WHICH}
        value={form.which}
        onChange={(which) => change({ which })}
      />
      {form.which === 'readings' ? (
        <Choice
          lines
          testID="print-method"
          label="Read by"
          options={METHODS}
          value={form.method ?? report?.read.proposal.method ?? 'centreline'}
          onChange={(method) => change({ method })}
        />
      ) : null}
      <Words look="soft">
        {report
          ? 'With this engine’s valves, order and figures, and a code that opens this build on a phone.'
          : 'Empty. From a build it comes with that engine’s valves, order and figures.'}
      </Words>
    </View>
  );
}

const CheckFields = () => (
  <Words>
    Print this first, on the paper that you will print on; measure both of its lines with a rule that you trust, and
    type below what they are.
  </Words>
);

const FIELDS = { wheel: WheelFields, tape: TapeFields, worksheet: WorksheetFields, check: CheckFields } as const;
