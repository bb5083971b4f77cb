import { useStation } from '@/logbook/station';
import { ReadingWheel } from '@/forms/reading-wheel';
import { UndoButton } from '@/ui/undo-button';
import { useEffect } from 'react';
import { View } from 'react-native';
import type { WheelReading } from '@yosoku/core/crank/wheel';
import { ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import { StationBody } from '@/shell/station-body';
import { useCover } from '@/shell/covered';
import { newId } from '@/logbook/use-logbook';
import { useStationWidth, useWheelSize } from '@/shell/use-station-width';
import { ReadingPad } from '@/forms/reading-pad';
import { useReadingEntry } from '@/forms/use-reading-entry';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';

interface ClosingCheckProps {
  /** On to the verdict: by itself where nothing has moved. */
  readonly onDone: () => void;
}

/** The contact once more, after the last reading. What is expected is not shown before it is typed: nobody reads what he hopes. */
export function ClosingCheck({ onDone }: ClosingCheckProps) {
  const { report, write, undo } = useStation();
  const { build, read, zero } = report;
  const { closing } = read;
  const width = useStationWidth();
  const size = useWheelSize();
  const entry = useReadingEntry(`${build.id}/closing`, 'zero', 0);
  useCover(closing.state === 'due');
  const stands = closing.state === 'same';
  // Nothing to decide about: the verdict says it.
  useEffect(() => {
    if (stands) onDone();
  }, [stands, onDone]);
  if (stands) return null;
  if (closing.state !== 'due' || closing.zero === null)
    return (
      <StationBody
        footer={
          <View>
            <View className="items-end px-4 wide:px-0">
              <UndoButton undo={undo} />
            </View>
            <PrimaryButton testID="closing-done" label="Back to the verdict" onPress={onDone} />
          </View>
        }
      >
        <View className="gap-3 px-4 wide:px-0 pt-4">
          <Words look="title" level={1} testID="sentence" aria-live="polite">
            Something has moved.
          </Words>
          <Words look="sentence">{closing.sentence}</Words>
          <Notice
            kind="warning"
            message="Do not move the cam by these readings."
            remedy="Tighten wheel and pointer, find TDC again at Zero, then repeat what was read since."
          />
        </View>
      </StationBody>
    );
  const { zero: of, setting, side, figure } = closing;
  const record = (wheel: WheelReading): void => {
    write('zero.reading', {
      zero: of,
      setting,
      pass: newId(),
      side,
      wheel,
      closing: true,
      ...(figure === null ? {} : { indicator: figure }),
    });
    entry.clear();
  };
  return (
    <StationBody
      footer={
        <View>
          <View className="items-end px-4 wide:px-0">
            <QuietButton testID="closing-later" label="Not now" onPress={onDone} />
          </View>
          <ReadingPad
            entry={entry}
            rotation={build.engine.rotation}
            recordLabel={ZERO_METHODS[zero.method ?? 'positive-stop'].record[side]}
            onRecord={record}
            onUndo={undo}
            onNext={onDone}
            width={width}
            blocked={null}
          />
        </View>
      }
    >
      <View className="gap-2 px-4 wide:px-0 pb-3 pt-2">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {closing.sentence}
        </Words>
        <Words look="soft">
          Turn by hand only. What you read is compared with the contact that proved TDC, once it is recorded.
        </Words>
      </View>
      <View className="items-center pt-2">
        <ReadingWheel entry={entry} size={size} turn="forward" saying={{ what: 'Degree wheel' }} />
      </View>
    </StationBody>
  );
}
