import { View } from 'react-native';
import { CHECK_LINE, type PrinterFactor, TRUE_PRINTER, printerError, printerFactor } from '@yosoku/core/paper/printer';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { cutText } from '@yosoku/core/units/text';
import { LengthField } from '@/forms/length-field';
import { typedLengthOf } from '@/forms/typed-length';
import { useDraft } from '@/store/use-draft';
import { selectSettings, settingsChanged } from '@/store/settings-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const LONGEST_NAME = 40;
const MOST_PRINTERS = 12;

/** The printer that is printed on, as this device knows it. */
export function usePrinter(): { readonly name: string | null; readonly factor: PrinterFactor } {
  const { printers, printer } = useAppSelector(selectSettings);
  const own = printers.find(({ name }) => name === printer);
  return own
    ? { name: own.name, factor: { across: own.across, along: own.along } }
    : { name: null, factor: TRUE_PRINTER };
}

const NOT_CHECKED = '';

/** Which printer, what it would do to paper that is not drawn for it, and a way to check another. */
export function PrinterChoice({ isChecking }: { readonly isChecking: boolean }) {
  const dispatch = useAppDispatch();
  const { printers } = useAppSelector(selectSettings);
  const { name, factor } = usePrinter();
  const choose = (printer: string): void =>
    void dispatch(settingsChanged({ printer: printer === NOT_CHECKED ? null : printer }));
  return (
    <View className="gap-3">
      {printers.length === 0 ? null : (
        <Choice
          lines
          testID="printer"
          label="Printer"
          options={[
            ...printers.map((each) => ({ value: each.name, label: each.name })),
            { value: NOT_CHECKED, label: 'Another one, not checked' },
          ]}
          value={name ?? NOT_CHECKED}
          onChange={choose}
        />
      )}
      <Words look="soft" testID="printer-error">
        {name === null ? UNCHECKED : errorWords(factor)}
      </Words>
      {isChecking ? <CheckForm /> : null}
      {name !== null && !isChecking ? (
        <View className="items-start">
          <QuietButton
            testID="printer-forget"
            label={`Forget ${name}`}
            onPress={() =>
              void dispatch(settingsChanged({ printers: printers.filter((each) => each.name !== name), printer: null }))
            }
          />
        </View>
      ) : null}
    </View>
  );
}

const ONE_PER_CENT = printerError({ across: 1.01, along: 1 });
const UNCHECKED = `No printer is checked on this device. One that errs by 1 % one way only would put a wheel’s marks off by up to ${computedDegrees(ONE_PER_CENT.wheel, 2)} (alike both ways: not at all), and run on by ${computedDegrees(ONE_PER_CENT.tape)} round a rim tape.`;

function errorWords(factor: PrinterFactor): string {
  const { wheel, tape } = printerError(factor);
  const percent = (each: number): string => `${((each - 1) * 100).toFixed(1).replace('-', '−')} %`;
  return `It prints ${percent(factor.across)} across and ${percent(factor.along)} along, which is put right. Otherwise a wheel’s marks would be off by up to ${computedDegrees(wheel, 2)}, and a rim tape by ${computedDegrees(tape)} once round.`;
}

/** What was measured of the two lines: kept on this device under the printer’s name. */
function CheckForm() {
  const dispatch = useAppDispatch();
  const { printers } = useAppSelector(selectSettings);
  const { draft, change, done } = useDraft('printer-check');
  const read = (field: 'across' | 'along') =>
    typedLengthOf(draft[field] ?? '', { units: 'mm', family: 'dimension', most: 400 });
  const [across, along] = [read('across'), read('along')];
  const name = cutText((draft.name ?? '').trim(), LONGEST_NAME);
  const isAsked = draft.asked === 'yes';
  const found =
    across.state === 'good' && along.state === 'good' ? printerFactor({ across: across.mm, along: along.mm }) : null;
  const keep = (): void => {
    if (name === '' || !found?.ok) {
      change({ asked: 'yes' });
      return;
    }
    const others = printers.filter((each) => each.name !== name).slice(-(MOST_PRINTERS - 1));
    void dispatch(settingsChanged({ printers: [...others, { name, ...found.factor }], printer: name }));
    done();
  };
  const line = (field: 'across' | 'along', label: string, typed: typeof across) => (
    <View className="grow basis-[140px]">
      <LengthField
        testID={`printer-${field}`}
        label={label}
        text={draft[field] ?? ''}
        typed={typed}
        hint={`Drawn ${CHECK_LINE} mm long.`}
        missing={isAsked ? 'Measure it.' : undefined}
        onChange={(text) => change({ [field]: text })}
        onSubmit={keep}
      />
    </View>
  );
  return (
    <View className="gap-3 border-t border-hairline pt-3">
      <View className="flex-row flex-wrap gap-x-4 gap-y-3">
        <View className="grow basis-[140px]">
          <TextField
            testID="printer-name"
            label="This printer’s name"
            value={draft.name ?? ''}
            onChange={(text) => change({ name: text })}
            error={isAsked && name === '' ? 'Give it a name.' : undefined}
          />
        </View>
        {line('across', 'The line across the sheet', across)}
        {line('along', 'The line along the sheet', along)}
      </View>
      {found && !found.ok ? (
        <Words role="alert" tone="danger" testID="printer-trouble">
          {`${found.problem.message} ${found.problem.remedy}`}
        </Words>
      ) : null}
      <View className="items-start">
        <QuietButton testID="printer-keep" label="Save this printer" onPress={keep} />
      </View>
    </View>
  );
}
