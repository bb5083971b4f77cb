import { UndoButton } from '@/ui/undo-button';
import { useState } from 'react';
import { useStore } from 'react-redux';
import { TextInput, View } from 'react-native';
import type { LengthUnit } from '@yosoku/core/units/length';
import { drafted, draftDone } from '@/store/drafts-slice';
import { type RootState, useAppDispatch, useAppSelector } from '@/store/store';
import { PrimaryButton } from '@/ui/buttons';
import { useWide } from '@/ui/layout';
import { Words } from '@/ui/words';
import { LengthKeypad } from './keypad';
import { type LengthKey, pressLengthKey, readLength } from './length-draft';
import { useShortcuts } from '@/ui/use-shortcuts';

/** A lift that is being typed at one place of the work. Kept on the device key by key. */
export function useLengthEntry(place: string, unit: LengthUnit) {
  const dispatch = useAppDispatch();
  const text = useAppSelector((state) => state.drafts[place]?.text ?? '');
  const store = useStore<RootState>();
  const parsed = readLength(text, unit);
  const type = (typed: string): void => {
    dispatch(drafted({ place, draft: { text: typed } }));
  };
  return {
    text,
    parsed,
    mm: parsed?.ok ? parsed.mm : null,
    type,
    // As it stands at this moment: a key that comes before the screen has followed must not undo the one before.
    press: (key: LengthKey) => type(pressLengthKey(store.getState().drafts[place]?.text ?? '', key)),
    clear: () => dispatch(draftDone(place)),
  };
}

type LengthEntry = ReturnType<typeof useLengthEntry>;

interface LengthPadProps {
  readonly entry: LengthEntry;
  readonly label: string;
  readonly recordLabel: string;
  readonly onRecord: (mm: number) => void;
  readonly onUndo: (() => void) | null;
  readonly onNext?: (() => void) | undefined;
  /** Why what stands there cannot be recorded, or null. */
  readonly trouble?: string | null;
  readonly nudge?: (quarters: number) => void;
}

const DIGITS = ['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', '.'] as const;

/** Entry of what the indicator shows: own keypad on a phone, a field at the bench. */
export function LengthPad(props: LengthPadProps) {
  const { entry, label, recordLabel, onRecord, onUndo, onNext, nudge } = props;
  const wide = useWide();
  const [asked, setAsked] = useState(false);
  const { parsed } = entry;
  const trouble =
    props.trouble ??
    (parsed && !parsed.ok && asked
      ? parsed.message
      : asked && !parsed
        ? 'Read the indicator and type what it shows.'
        : null);
  const record = (): void => {
    if (entry.mm === null || props.trouble) {
      setAsked(true);
      return;
    }
    setAsked(false);
    onRecord(entry.mm);
    entry.clear();
  };
  useShortcuts({
    ...Object.fromEntries(DIGITS.map((key) => [key, () => entry.press(key)])),
    Backspace: () => entry.press('back'),
    Enter: record,
    u: () => onUndo?.(),
    n: () => onNext?.(),
    '[': () => nudge?.(-1),
    ']': () => nudge?.(1),
  });
  const echo = parsed?.ok ? parsed.understood : null;
  return (
    <View>
      {trouble ? (
        <Words look="label" role="alert" testID="reading-trouble" tone="danger" className="px-4 py-2">
          {trouble}
        </Words>
      ) : null}
      {wide ? (
        <View className="flex-row items-end gap-4 pt-4">
          <TextInput
            testID="reading"
            aria-label={label}
            value={entry.text}
            onChangeText={entry.type}
            inputMode="decimal"
            autoFocus
            className="h-[60px] w-[190px] border-b-2 border-brass bg-raised px-3 font-figures-bold text-[36px] text-ink"
            style={{ fontVariant: ['tabular-nums'] }}
          />
          <View className="w-[250px]">
            <PrimaryButton testID="record" label={recordLabel} onPress={record} />
          </View>
          <UndoButton undo={onUndo} />
          <Words look="soft" testID="length-echo" className="shrink">
            {echo ?? 'Enter records · U undo · N next station'}
          </Words>
        </View>
      ) : (
        <>
          <View className="min-h-[52px] flex-row items-baseline justify-between gap-3 border-t border-hairline px-4 py-1">
            <Words look="label" tone="soft" className="shrink">
              {echo ?? label}
            </Words>
            <Words look="figure" testID="length-echo" className="font-figures-bold text-[40px] leading-[44px]">
              {entry.text || '–'}
            </Words>
          </View>
          <LengthKeypad onKey={entry.press} onUndo={onUndo} />
          <PrimaryButton testID="record" label={recordLabel} onPress={record} />
        </>
      )}
    </View>
  );
}
