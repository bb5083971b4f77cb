import { Suspense, lazy } from 'react';
import type { StripProps } from './instrument-strip';
import type { TurnRecorderProps } from './turn-recorder';

const Strip = lazy(async () => ({ default: (await import('./all-instruments')).InstrumentStrip }));
const Turn = lazy(async () => ({ default: (await import('./all-instruments')).TurnRecorderPanel }));

/** The line of the instrument above a pad. */
export const Instruments = (props: StripProps) => (
  <Suspense fallback={null}>
    <Strip {...props} />
  </Suspense>
);

/** Records a turn, where an instrument is plugged in. */
export const RecordTurn = (props: TurnRecorderProps) => (
  <Suspense fallback={null}>
    <Turn {...props} />
  </Suspense>
);
