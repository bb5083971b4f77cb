/** Whatever listens to an instrument: one piece, fetched when a station is opened (see `instruments.tsx`). */
export { InstrumentStrip } from './instrument-strip';
export { TurnRecorderPanel } from './turn-recorder';
