import { UndoButton } from '@/ui/undo-button';
import ArrowLeftRight from 'lucide-react-native/icons/arrow-left-right';
import Minus from 'lucide-react-native/icons/minus';
import Plus from 'lucide-react-native/icons/plus';
import { useState } from 'react';
import { Pressable, Text, TextInput, View } from 'react-native';
import type { Rotation } from '@yosoku/core/crank/rotation';
import { type WheelReading, type WheelSide, formatReading, ringWords, sideWords } from '@yosoku/core/crank/wheel';
import { SlideRule } from '@/pictures/slide-rule';
import { PrimaryButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { Keypad } from './keypad';
import { type ReadingEntry, wholeReading } from './use-reading-entry';
import { useShortcuts } from '@/ui/use-shortcuts';

interface ReadingPadProps {
  readonly entry: ReadingEntry;
  readonly rotation: Rotation;
  readonly recordLabel: string;
  readonly onRecord: (reading: WheelReading) => void;
  readonly onUndo: (() => void) | null;
  readonly onNext?: (() => void) | undefined;
  readonly width: number;
  /** What the reading is of, in the words of the trade: "before peak, coming forward". The button says it with the figure that is typed. */
  readonly readAs?: string;
  /** Why nothing can be recorded yet, or null. */
  readonly blocked?: string | null;
}

const NUDGE_WIDTH = 52;
const FIGURES = ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', '.'] as const;

/** Why it cannot be recorded: what is wrong at once, what is missing once it was asked for. */
function troubleOf({ state, sides }: ReadingEntry, asked: boolean, blocked: string | null): string | null {
  if (state.state === 'wrong') return state.message;
  if (!asked) return null;
  if (blocked !== null) return blocked;
  if (state.state === 'sideless') return `Say which side: ${sides.map(sideWords).join(' or ')}.`;
  return state.state === 'empty' ? 'Read the wheel and type the degrees under the pointer first.' : null;
}

/** Entry of one wheel reading: own keypad on a phone, a field and single keys at the bench. */
export function ReadingPad(props: ReadingPadProps) {
  const { entry, rotation, readAs, onRecord, onUndo, onNext, width, blocked = null } = props;
  const typed = wholeReading(entry);
  const recordLabel = readAs && typed ? `Record ${formatReading(typed)}: ${readAs}` : props.recordLabel;
  const wide = useWide();
  const [asked, setAsked] = useState(false);
  const [help, setHelp] = useState(false);
  const trouble = troubleOf(entry, asked, blocked);

  const record = (): void => {
    const reading = wholeReading(entry);
    if (!reading || blocked !== null) {
      setAsked(true);
      return;
    }
    setAsked(false);
    onRecord(reading);
    entry.clear();
  };
  const side = (half: 'before' | 'after'): void => {
    const ofHalf = entry.sides.filter((each) => each.startsWith(half));
    const at = ofHalf.findIndex((each) => each === entry.draft.side);
    const next = ofHalf[(at + 1) % ofHalf.length];
    if (next) entry.chooseSide(next);
  };
  const nextRing = (): void => {
    const next = entry.rings[(entry.rings.indexOf(entry.ring) + 1) % entry.rings.length];
    if (next) entry.chooseRing(next);
  };
  const figures = Object.fromEntries(FIGURES.map((key) => [key, () => entry.press(key)]));
  useShortcuts({
    ...figures,
    Backspace: () => entry.press('back'),
    Enter: record,
    b: () => side('before'),
    a: () => side('after'),
    '[': () => entry.nudge(-1),
    ']': () => entry.nudge(1),
    r: nextRing,
    u: () => onUndo?.(),
    n: () => onNext?.(),
    '?': () => setHelp(!help),
  });

  return (
    <View>
      <View className="flex-row border-y border-hairline">
        <NudgeKey label="Back a quarter degree" sign="minus" onPress={() => entry.nudge(-1)} />
        <SlideRule
          ring={entry.ring}
          rotation={rotation}
          position={entry.position}
          turning={entry.turning}
          width={Math.max(120, width - 2 * NUDGE_WIDTH)}
          onTurn={entry.turnTo}
        />
        <NudgeKey label="On a quarter degree" sign="plus" onPress={() => entry.nudge(1)} />
      </View>
      {trouble ? (
        <Words look="label" role="alert" testID="reading-trouble" tone="danger" className="px-4 py-2">
          {trouble}
        </Words>
      ) : null}
      {entry.sides.length > 0 || entry.rings.length > 1 ? <SideKeys entry={entry} onNextRing={nextRing} /> : null}
      {wide ? (
        <BenchField entry={entry} recordLabel={recordLabel} help={help} onRecord={record} onUndo={onUndo} />
      ) : (
        <>
          <Keypad onKey={entry.press} onUndo={onUndo} />
          <PrimaryButton testID="record" label={recordLabel} onPress={record} />
        </>
      )}
    </View>
  );
}

interface BenchFieldProps extends Pick<ReadingPadProps, 'entry' | 'recordLabel' | 'onUndo'> {
  readonly onRecord: () => void;
  /** Are all keys shown? */
  readonly help: boolean;
}

/** At the bench: a field in the place of the keypad, and the single keys. */
function BenchField({ entry, recordLabel, help, onRecord, onUndo }: BenchFieldProps) {
  return (
    <View className="flex-row items-end gap-4 pt-4">
      <TextInput
        testID="reading"
        aria-label="Degrees under the pointer"
        value={entry.draft.text}
        onChangeText={(text) => entry.type(text.replace(',', '.').replace(/[^\d.−-]/g, ''))}
        inputMode="decimal"
        autoFocus
        className="h-[60px] w-[150px] border-b-2 border-brass bg-raised px-3 font-figures-bold text-[40px] text-ink"
        style={{ fontVariant: ['tabular-nums'] }}
      />
      <View className="w-[250px]">
        <PrimaryButton testID="record" label={recordLabel} onPress={onRecord} />
      </View>
      <UndoButton undo={onUndo} />
      <Words look="soft" className="shrink">
        {help
          ? `Enter records · B before · A after · ${entry.rings.length > 1 ? 'R other numbers · ' : ''}[ ] nudge ¼° · U undo · N next station · ? hides this`
          : 'Enter records · ? shows all keys'}
      </Words>
    </View>
  );
}

/** Which of the wheel's numbers were read, one tap for the next of them, and on which side. */
function SideKeys({ entry, onNextRing }: { readonly entry: ReadingEntry; readonly onNextRing: () => void }) {
  const { brass } = useTheme();
  const tight = entry.rings.length > 1 && entry.sides.length > 2;
  return (
    <View className="flex-row border-b border-hairline">
      {entry.rings.length > 1 ? (
        <Pressable
          role="button"
          testID="other-ring"
          aria-label={`Read on the numbers ${ringWords(entry.ring)}. Take the others`}
          onPress={onNextRing}
          className="h-[50px] min-w-[84px] flex-row items-center justify-center gap-1 border-r border-hairline px-2 active:bg-raised"
        >
          <Text className="font-figures-bold text-[16px] text-brass">{ringWords(entry.ring)}</Text>
          <ArrowLeftRight size={16} color={brass} />
        </Pressable>
      ) : null}
      <View role="radiogroup" aria-label="Side of the wheel" className="shrink grow flex-row">
        {entry.sides.map((side: WheelSide) => {
          const chosen = entry.draft.side === side;
          return (
            <Pressable
              key={side}
              role="radio"
              testID={`side-${side}`}
              aria-checked={chosen}
              onPress={() => entry.chooseSide(side)}
              className={`h-[50px] shrink grow basis-0 items-center justify-center border-b-4 ${chosen ? 'border-brass bg-raised' : 'border-transparent'}`}
            >
              <Text
                className={`text-center font-bold ${tight ? 'text-[15px] leading-[17px]' : 'text-[17px]'} ${chosen ? 'text-brass' : 'text-ink'}`}
              >
                {sideWords(side)}
              </Text>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}

const SIGNS = { minus: Minus, plus: Plus } as const;

function NudgeKey(props: { readonly label: string; readonly sign: 'minus' | 'plus'; readonly onPress: () => void }) {
  const { brass } = useTheme();
  const Sign = SIGNS[props.sign];
  return (
    <Pressable
      role="button"
      aria-label={`${props.label}: ¼°`}
      onPress={props.onPress}
      style={{ width: NUDGE_WIDTH }}
      className="h-[54px] items-center justify-center active:bg-raised"
    >
      <Sign size={18} color={brass} />
      <Text className="font-figures text-[14px] text-brass">¼°</Text>
    </Pressable>
  );
}
