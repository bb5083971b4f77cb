import { useRouter } from 'expo-router';
import { type ReactNode } from 'react';
import { View } from 'react-native';
import { READ_METHODS } from '@yosoku/core/measure/read-methods';
import type { Report } from '@yosoku/core/report/report';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { useStation } from '@/logbook/station';
import { StationBody } from '@/shell/station-body';
import { placeHref } from '@/shell/station-line';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { UndoButton } from '@/ui/undo-button';
import { useShortcuts } from '@/ui/use-shortcuts';
import { Words } from '@/ui/words';
import type { Reading } from './reading';
import type { ReadingChoice } from './use-reading-choice';
import { ZeroNotice } from './zero-notice';

interface LobeDoneProps {
  readonly choice: ReadingChoice;
  readonly round: Report['trials'][number]['rounds'][number];
  readonly reading: Reading;
  readonly bar: ReactNode;
  readonly onAgain: () => void;
}

/** A lobe of another cylinder is read: it stands beside the others, and leaves the verdict alone. */
export function LobeDone({ choice, round, reading, bar, onAgain }: LobeDoneProps) {
  const { report } = useStation();
  const router = useRouter();
  const { valve, method, cylinder } = choice;
  const back = (): void => {
    choice.toOwn();
    router.replace(placeHref(report.build.id, 'lobes'));
  };
  useShortcuts({ Enter: back, u: () => reading.undo?.() });
  return (
    <StationBody
      footer={
        <View>
          <View className="flex-row flex-wrap items-center justify-between gap-x-4 px-4 wide:px-0">
            <QuietButton label="Once more" testID="again" onPress={onAgain} />
            <UndoButton undo={reading.undo} />
          </View>
          <PrimaryButton testID="to-lobes" label="Back to every lobe" onPress={back} />
        </View>
      }
    >
      {bar}
      <View className="gap-3 px-4 wide:px-0 pb-3 pt-4">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {round.centreline === null
            ? `Cylinder ${cylinder}, ${valve}: ${READ_METHODS[method].short} recorded.`
            : `Cylinder ${cylinder}, ${valve} centreline: ${computedDegrees(round.centreline)}, counted from its own TDC.`}
        </Words>
        <Words look="soft">
          It stands beside the other lobes. Where the cam sits is told at the cylinder where it is measured, and not by
          this.
        </Words>
        <ZeroNotice />
      </View>
    </StationBody>
  );
}
