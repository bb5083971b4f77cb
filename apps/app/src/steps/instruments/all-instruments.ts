/** Whatever listens to an instrument: one piece, fetched when one is wanted (see `instruments.tsx`). */
export { InstrumentStrip, plugInPractice } from './instrument-strip';
export { TurnRecorderPanel } from './turn-recorder';
