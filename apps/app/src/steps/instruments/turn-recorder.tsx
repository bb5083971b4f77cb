import { useState } from 'react';
import { View } from 'react-native';
import type { RecordedTurn, TurnRecorder } from '@yosoku/core/instruments/record-turn';
import { FEWEST_POINTS } from '@yosoku/core/cam/trace-points';
import type { Valve } from '@yosoku/core/cam/card';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { Words } from '@/ui/words';
import { channelOf } from './instrument-strip';
import { holds } from '@/instruments/take-reading';
import { useShowing } from '@/instruments/use-showing';
import type { Instrument } from '@/instruments/instrument';
import { useStation } from '@/logbook/station';

export interface TurnRecorderProps {
  readonly instrument: Instrument;
  readonly valve: Valve;
  readonly onRecorded: (points: RecordedTurn['points'], box: string) => void;
}

/** A lobe opens and closes within this, crank degrees: less is no whole trace. */
const ENOUGH = 250;
/** Points farther apart than this leave the shape to guesswork, crank degrees. From memory. */
const WIDE = 4;

/** A whole trace from one slow turn by hand with the instrument that is plugged in. */
export function TurnRecorderPanel({ valve, onRecorded, instrument }: TurnRecorderProps) {
  const { report } = useStation();
  const showing = useShowing(instrument);
  const [recorder, setRecorder] = useState<TurnRecorder | null>(null);
  const [origin, setOrigin] = useState(0);
  const synced = holds(showing.sync, showing, report.zero.setting);
  const begin = (): void => {
    setRecorder(instrument.record(channelOf(valve, showing.lifts)));
    setOrigin(showing.origin);
  };
  const drop = (): void => {
    instrument.stopRecording();
    setRecorder(null);
  };
  if (!recorder)
    return (
      <View className="gap-1">
        <PrimaryButton testID="turn-begin" label="Record a slow turn" disabled={!synced} onPress={begin} />
        <Words look="soft">
          {synced
            ? `Zero it on the base circle of the ${valve} first, and begin well before it opens.`
            : 'Sync it with the wheel first: enter the wheel reading, and press Sync.'}
        </Words>
      </View>
    );
  const turn = recorder.result();
  const broken = showing.origin !== origin;
  return (
    <View className="gap-2" testID="turn-recorder">
      <Words look="sentence" aria-live="polite" testID="turn-so-far">
        {`${turn.points.length} points over ${computedDegrees(turn.sweep)}.`}
      </Words>
      {broken ? (
        <Notice
          kind="danger"
          message="The count lost its origin while it was recorded."
          remedy="What came before it is kept as it is. Keep it if it is whole, or sync the instrument again and start over."
        />
      ) : turn.back ? (
        <Notice
          kind="warning"
          testID="turned-back"
          message="Turned back."
          remedy="What is read now is left out until you have come forward to where you were."
        />
      ) : turn.widest > WIDE ? (
        <Notice
          kind="warning"
          message={`Points lie up to ${computedDegrees(turn.widest)} apart.`}
          remedy="Turned too fast there, or lines were lost. Slower, or record that turn again."
        />
      ) : null}
      <PrimaryButton
        testID="turn-keep"
        label={`Save the turn, ${turn.points.length} points`}
        disabled={turn.points.length < FEWEST_POINTS || turn.sweep < ENOUGH}
        onPress={() => {
          drop();
          onRecorded(turn.points, showing.box ?? instrument.name);
        }}
      />
      <View className="items-start">
        <QuietButton testID="turn-drop" label="Start over" onPress={drop} />
      </View>
    </View>
  );
}
