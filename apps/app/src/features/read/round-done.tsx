import { useStation } from '@/logbook/station';
import { UndoButton } from '@/ui/undo-button';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { READ_METHODS } from '@yosoku/core/measure/read-methods';
import { StationBody } from '@/shell/station-body';
import { PictureBeside } from '@/shell/picture-beside';
import { useWide } from '@/ui/layout';
import { useShortcuts } from '@/ui/use-shortcuts';
import { CycleRibbon } from '@/pictures/cycle-ribbon';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Words } from '@/ui/words';
import type { Reading } from './reading';
import type { ReadingChoice } from './use-reading-choice';
import { ViewList } from '@/findings/view-list';
import { ZeroNotice } from './zero-notice';
import { capital } from '@yosoku/core/report/capital';

interface RoundDoneProps {
  readonly choice: ReadingChoice;
  readonly reading: Reading;
  readonly bar: ReactNode;
  readonly onAgain: () => void;
  readonly onOther: () => void;
  /** The closing check, where it is due. */
  readonly onClosing: (() => void) | null;
}

/** A round is complete: what it gives, all that was measured so far, and what comes next. */
export function RoundDone({ choice, reading, bar, onAgain, onOther, onClosing }: RoundDoneProps) {
  const { report } = useStation();
  const { card, build } = report;
  const { method, valve, sitsOn } = choice;
  const wide = useWide();
  const trial = report.trials.at(-1);
  const views = trial?.views ?? [];
  const mine = views.find((view) => view.method === method && view.valve === valve);
  const other = valve === 'intake' ? 'exhaust' : 'intake';
  const otherDue = !views.some((view) => view.method === method && view.valve === other);
  // The slack is the drive's, whichever valve it was felt at.
  const leads = otherDue && READ_METHODS[method].reads !== 'slack';
  const goOn = (): void => {
    if (leads) choice.choose({ method, valve: other, sitsOn });
    else reading.decide();
  };
  // For hands that are busy: the two ways that most cams are read in.
  const otherWay = (): void =>
    choice.choose({ method: READ_METHODS[method].from === 'peak' ? 'events' : 'centreline', valve: 'intake', sitsOn });
  useShortcuts({ w: otherWay, Enter: goOn, n: reading.decide, u: () => reading.undo?.() });
  return (
    <StationBody
      footer={
        <View>
          <View className="flex-row flex-wrap items-center justify-between gap-x-4 px-4 wide:px-0">
            <QuietButton label="Once more" testID="again" onPress={onAgain} />
            <QuietButton label="Another way" testID="another-way" onPress={onOther} />
            {onClosing ? <QuietButton label="Closing check" testID="closing" onPress={onClosing} /> : null}
            {leads ? <QuietButton label="See the verdict" testID="next" onPress={reading.decide} /> : null}
            <UndoButton undo={reading.undo} />
          </View>
          {leads ? (
            <PrimaryButton testID="other-valve" label={`Now the ${other}, the same way`} onPress={goOn} />
          ) : (
            <PrimaryButton testID="next" label="See the verdict" onPress={goOn} />
          )}
        </View>
      }
    >
      {bar}
      <View className="gap-3 px-4 wide:px-0 pb-3 pt-4">
        <Words look="sentence" level={1} testID="sentence" aria-live="polite">
          {mine ? `${mine.title}: ${mine.shows}.` : `${READ_METHODS[method].name}: recorded.`}
        </Words>
        {mine?.against ? <Words look="soft">{capital(`${mine.detail ?? ''}. Wanted: ${mine.against}.`)}</Words> : null}
        <ZeroNotice />
        <PictureBeside
          picture={(width) => (
            <CycleRibbon
              testID="read-ribbon"
              card={card.lobes}
              measured={drawn(trial)}
              dots={trial?.dots ?? []}
              units={build.units}
              width={wide ? width : width - 32}
              description="Cycle ribbon: lobes of the card hollow, as measured filled, readings as marks."
            />
          )}
        >
          <ViewList views={views} />
        </PictureBeside>
      </View>
    </StationBody>
  );
}

/** The measured lobes to be drawn: a trace where there is one, else the lobe through the readings. */
function drawn(trial: Report['trials'][number] | undefined) {
  const of = (valve: 'intake' | 'exhaust') => {
    const trace = trial?.traces.find((each) => each.valve === valve && each.curve.length > 0 && each.placed);
    return trace?.curve ?? trial?.lobes[valve] ?? null;
  };
  return { intake: of('intake'), exhaust: of('exhaust') };
}
