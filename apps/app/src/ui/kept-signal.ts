/** A click that is heard over a compressor: short, and high. Hz, s. */
const TICK = { pitch: 1800, lasts: 0.045, loud: 0.25 } as const;
const BUZZ_MS = 40;

let context: AudioContext | null = null;

/** Makes hands that look elsewhere sure that a reading was kept. */
export function signalKept({ buzz, tick }: { readonly buzz: boolean; readonly tick: boolean }): void {
  if (buzz && typeof navigator !== 'undefined' && 'vibrate' in navigator) navigator.vibrate(BUZZ_MS);
  if (tick && typeof AudioContext !== 'undefined') {
    context ??= new AudioContext();
    const sound = new OscillatorNode(context, { frequency: TICK.pitch });
    const loudness = new GainNode(context, { gain: TICK.loud });
    loudness.gain.exponentialRampToValueAtTime(0.001, context.currentTime + TICK.lasts);
    sound.connect(loudness).connect(context.destination);
    sound.start();
    sound.stop(context.currentTime + TICK.lasts);
  }
}
