import { Suspense, lazy, useState } from 'react';
import { View } from 'react-native';
import { useInstrument } from '@/instruments/plugged-in';
import { useStation } from '@/logbook/station';
import { usePractice } from '@/practice/practice-frame';
import type { StripProps } from './instrument-strip';
import { Words } from '@/ui/words';
import { StripKey } from './strip-key';
import type { TurnRecorderProps } from './turn-recorder';

const listening = () => import('./all-instruments');
const Strip = lazy(async () => ({ default: (await listening()).InstrumentStrip }));
const Turn = lazy(async () => ({ default: (await listening()).TurnRecorderPanel }));

/** The line of the instrument above a pad; where none is plugged in, a key to begin with one. */
export function Instruments(props: StripProps) {
  const { id } = useStation().report.build;
  const practice = usePractice(id);
  const instrument = useInstrument(id);
  const [choosing, setChoosing] = useState(false);
  const [trouble, setTrouble] = useState(false);
  if (instrument || choosing)
    return (
      <Suspense fallback={null}>
        <Strip {...props} onChosen={() => setChoosing(false)} />
      </Suspense>
    );
  const begin = (): void => {
    setTrouble(false);
    if (!practice) setChoosing(true);
    else
      void listening()
        .then(({ plugInPractice }) => plugInPractice(practice))
        .catch(() => setTrouble(true));
  };
  return (
    <View className="flex-row flex-wrap items-center border-t border-hairline px-2">
      <StripKey testID="instrument" label="Read by an instrument" onPress={begin} />
      {trouble ? (
        <Words look="soft" tone="danger" role="alert" className="px-3 pb-1">
          It could not be loaded. Press again when the server can be reached.
        </Words>
      ) : null}
    </View>
  );
}

/** Records a turn, where an instrument is plugged in. */
export function RecordTurn(props: Omit<TurnRecorderProps, 'instrument'>) {
  const instrument = useInstrument(useStation().report.build.id);
  return instrument ? (
    <Suspense fallback={null}>
      <Turn {...props} instrument={instrument} />
    </Suspense>
  ) : null;
}
