import type { ReactNode } from 'react';
import { View } from 'react-native';
import { capital } from '@yosoku/core/report/capital';
import { formatLength } from '@yosoku/core/units/length';
import { valveWords } from '@yosoku/core/valve-train/valve-name';
import { LengthKeypad } from '@/forms/keypad';
import { useLengthEntry } from '@/forms/length-pad';
import { useStation } from '@/logbook/station';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { useWide } from '@/ui/layout';
import { TextField } from '@/ui/text-field';
import { UndoButton } from '@/ui/undo-button';
import { useShortcuts } from '@/ui/use-shortcuts';
import { Words } from '@/ui/words';
import type { LashEntry, LashJob, LashValve, Meaning } from './use-lash';
import { LASH } from '@yosoku/core/record/entries/limits';

const MEANING_CHOICES = [
  { value: 'found', label: 'Found' },
  { value: 'set', label: 'Set to' },
] as const;
const DIGITS = ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', '.'] as const;

type Figure = ReturnType<typeof useLengthEntry>;

interface Task {
  readonly label: string;
  /** null: not now. */
  readonly act: (() => void) | null;
}

/** Its place is kept, so that nothing moves under the thumb when a figure is typed. */
const NOTHING_TO_LEAVE: Task = { label: 'Leave it as found', act: null };

interface PadProps {
  readonly job: LashJob;
  readonly entry: LashEntry;
  readonly own: LashValve;
  readonly onNext: () => void;
}

/** What the one large key does with what stands on the pad, and what else may be done with it. */
function tasksOf(
  { job, entry, own }: PadProps,
  typed: number | null,
  units: 'in' | 'mm',
): readonly [Task, Task | null] {
  const words = (mm: number): string => formatLength(mm, units);
  const { take, meaning } = entry;
  const again = own.state === 'set' || own.state === 'good';
  const left = own.left ?? own.wanted;
  if (again && meaning === 'found')
    return typed === null
      ? [{ label: `Still ${words(left)}`, act: () => take({ found: left }) }, null]
      : [{ label: `Found ${words(typed)}`, act: () => take({ found: typed }) }, null];
  if (meaning === 'set' && typed !== null)
    return [{ label: setLabel(job, typed, words), act: () => take({ set: typed }) }, null];
  const { wanted } = own;
  if (typed === null)
    return [{ label: setLabel(job, wanted, words), act: () => take({ set: wanted }) }, NOTHING_TO_LEAVE];
  return [
    { label: `Found ${words(typed)}, set to ${words(wanted)}`, act: () => take({ found: typed, set: wanted }) },
    { label: `Left at ${words(typed)}`, act: () => take({ found: typed }) },
  ];
}

function setLabel({ wanted }: LashJob, set: number, words: (mm: number) => string): string {
  const step = wanted.kind === 'lash' ? wanted.noGo : undefined;
  return step === undefined ? `Set to ${words(set)}` : `Set: ${words(set)} goes, ${words(set + step)} does not`;
}

/** The lash of one valve: typed where it was measured, one press where it is as wanted. */
export function LashPad(props: PadProps) {
  const { entry: lash, own, onNext } = props;
  const { report, undo } = useStation();
  const { id, units } = report.build;
  const entry = useLengthEntry(`${id}/lash-figure`, units);
  const wide = useWide();
  const trouble = troubleOf(entry);
  const [task, other] = tasksOf(props, trouble ? null : entry.mm, units);
  const record = ({ act }: Task): void => {
    if (trouble || !act) return;
    act();
    entry.clear();
  };
  useShortcuts({
    ...Object.fromEntries(DIGITS.map((key) => [key, () => entry.press(key)])),
    Backspace: () => entry.press('back'),
    Enter: () => record(task),
    l: () => other && record(other),
    s: () => lash.mean(lash.meaning === 'set' ? 'found' : 'set'),
    u: () => undo?.(),
    n: onNext,
  });
  const keys = (
    <View>
      {other ? (
        <QuietButton testID="leave" label={other.label} disabled={other.act === null} onPress={() => record(other)} />
      ) : null}
      <PrimaryButton testID="record" label={task.label} disabled={trouble !== null} onPress={() => record(task)} />
    </View>
  );
  const parts: PartsProps = { entry, lash, own, trouble, keys, undo };
  return wide ? <AtTheBench {...parts} /> : <UnderTheThumb {...parts} />;
}

/** What is wrong with what stands there, or null. */
function troubleOf({ parsed, mm }: Figure): string | null {
  if (parsed && !parsed.ok) return parsed.message;
  return mm !== null && mm > LASH.gap ? 'No valve has so much lash. Check the unit.' : null;
}

interface PartsProps {
  readonly entry: Figure;
  readonly lash: LashEntry;
  readonly own: LashValve;
  readonly trouble: string | null;
  readonly keys: ReactNode;
  readonly undo: (() => void) | null;
}

const MeaningChoice = ({ lash }: { readonly lash: LashEntry }) => (
  <View className="w-[168px]">
    <Choice
      testID="meaning"
      label="What is typed"
      hideLabel
      options={MEANING_CHOICES}
      value={lash.meaning}
      onChange={(next: Meaning) => lash.mean(next)}
    />
  </View>
);

function AtTheBench({ entry, lash, trouble, keys, undo }: PartsProps) {
  return (
    <View className="gap-2 pt-3">
      <View className="flex-row items-end gap-4">
        <MeaningChoice lash={lash} />
        <View className="w-[170px]">
          <TextField
            testID="reading"
            label={lash.meaning === 'set' ? 'Set to' : 'Found at, if measured'}
            value={entry.text}
            inputMode="decimal"
            onChange={entry.type}
            error={trouble ?? undefined}
            echo={entry.parsed?.ok ? entry.parsed.understood : undefined}
          />
        </View>
        <View className="shrink grow basis-0">{keys}</View>
      </View>
      <View className="flex-row items-center justify-between gap-3">
        <Words look="soft" className="shrink">
          Enter records · L leaves it as found · S found, or set to · U undo · N next station
        </Words>
        <UndoButton undo={undo} />
      </View>
    </View>
  );
}

function UnderTheThumb({ entry, lash, own, trouble, keys, undo }: PartsProps) {
  const name = capital(valveWords(own));
  const label = lash.meaning === 'set' ? `${name}, set to` : `${name}, found at (or nothing)`;
  return (
    <View>
      <View className="min-h-[56px] flex-row items-center justify-between gap-3 border-t border-hairline px-4 py-1">
        <MeaningChoice lash={lash} />
        <View className="shrink items-end">
          <Words look="figure" testID="length-echo" className="font-figures-bold text-[34px] leading-[38px]">
            {entry.text || '–'}
          </Words>
        </View>
      </View>
      <Words
        look="soft"
        tone={trouble ? 'danger' : 'soft'}
        role={trouble ? 'alert' : undefined}
        testID="lash-echo"
        className="px-4 pb-1"
      >
        {trouble ?? (entry.parsed?.ok ? entry.parsed.understood : label)}
      </Words>
      <LengthKeypad onKey={entry.press} onUndo={undo} />
      {keys}
    </View>
  );
}

const TURNS = [0.25, 0.5, 0.75, 1, 1.25, 1.5] as const;
const TURN_CHOICES = TURNS.map((turns) => ({ value: String(turns), label: turnLabel(turns) }));

function turnLabel(turns: number): string {
  const whole = Math.floor(turns);
  const part = { 25: '¼', 50: '½', 75: '¾' }[Math.round((turns - whole) * 100)] ?? '';
  return `${whole === 0 ? '' : whole}${part}`;
}

/** A hydraulic lifter: down to zero lash, then so many turns. */
export function PreloadPad({ job, entry, own, onNext }: PadProps) {
  const { undo } = useStation();
  const wanted = job.wanted.kind === 'preload' ? job.wanted.turns : 0;
  const turn = (turns: number): void => entry.take({ turns });
  useShortcuts({ Enter: () => turn(wanted), u: () => undo?.(), n: onNext });
  const name = capital(valveWords(own));
  return (
    <View className="gap-2">
      <View className="px-4 wide:px-0">
        <Choice
          testID="turns"
          label={`${name}: turned past zero lash by another figure`}
          options={TURN_CHOICES}
          value={undefined}
          onChange={(value) => turn(Number(value))}
        />
        <View className="items-end">
          <UndoButton undo={undo} />
        </View>
      </View>
      <PrimaryButton
        testID="record"
        label={`${name}: ${turnLabel(wanted)} ${wanted > 1 ? 'turns' : 'turn'} down, locked`}
        onPress={() => turn(wanted)}
      />
    </View>
  );
}
