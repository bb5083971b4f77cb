import { LONGEST_LINE } from '@yosoku/core/instruments/line';

/** Larger no message of a box is, bytes: a hundred lines and more. */
export const LARGEST_MESSAGE = 16 * 1024;
/** Lines that came within this go out together, ms. */
const TOGETHER_MS = 25;
/** A listener that cannot keep up loses lines rather than filling the server's memory, bytes. */
const MOST_BEHIND = 256 * 1024;
/** A box that has been silent for so long may be replaced by another connection, ms: its own line may have died unnoticed. */
const SILENT_MS = 2_000;
/** More lines in a second no box says: it is cut off. */
const MOST_LINES = 5_000;

/** Somebody who hears a box. */
export interface Listener {
  readonly send: (text: string) => void;
  /** Bytes that wait to be sent. */
  readonly behind: () => number;
}

/** Why a box is cut off: another speaks as it, or its key was taken away. */
type HangUp = (why: 'taken' | 'keyGone') => void;

interface Channel {
  readonly listeners: Set<Listener>;
  speaker: { readonly hangUp: HangUp; heardAt: number } | null;
  pending: string[];
  timer: NodeJS.Timeout | null;
}

export interface Speaker {
  /** Takes what the box said: any number of lines, whole or broken anywhere. False when it says too much: hang up. */
  readonly say: (text: string) => boolean;
  readonly leave: () => void;
}

/** Messages of the server to a listener, beside the lines of the box. */
const SAYS = { here: '# here', gone: '# gone' } as const;

/**
 * Brings the lines of each box to whoever listens to it. Lines are passed on as they came, damaged ones too: the listener judges them. Kept in the
 * memory of one server process; box and listener must be at the same one.
 */
export function makeExchange(now: () => number = Date.now) {
  const channels = new Map<string, Channel>();
  const channelOf = (key: string): Channel => {
    const known = channels.get(key);
    if (known) return known;
    const fresh: Channel = { listeners: new Set(), speaker: null, pending: [], timer: null };
    channels.set(key, fresh);
    return fresh;
  };
  const forget = (key: string, { listeners, speaker }: Channel): void => {
    if (listeners.size === 0 && speaker === null) channels.delete(key);
  };
  const tell = (channel: Channel, text: string): void => {
    for (const listener of channel.listeners) if (listener.behind() < MOST_BEHIND) listener.send(text);
  };
  const flush = (channel: Channel): void => {
    channel.timer = null;
    const { pending } = channel;
    channel.pending = [];
    if (pending.length > 0) tell(channel, pending.join('\n'));
  };

  return {
    isLive: (key: string): boolean => Boolean(channels.get(key)?.speaker),

    /** Who is listened to begins to speak; null while another connection speaks as the same box. */
    plugIn: (key: string, hangUp: HangUp): Speaker | null => {
      const channel = channelOf(key);
      if (channel.speaker) {
        if (now() - channel.speaker.heardAt < SILENT_MS) return null;
        channel.speaker.hangUp('taken');
      }
      const speaker = { hangUp, heardAt: now() };
      channel.speaker = speaker;
      tell(channel, SAYS.here);
      let rest = '';
      let second = 0;
      let lines = 0;
      return {
        say: (text) => {
          if (channel.speaker !== speaker) return false;
          speaker.heardAt = now();
          const parts = (rest + text).split(/\r?\n/);
          rest = parts.pop() ?? '';
          // A line that never ends is passed on as the rubbish that it is.
          if (rest.length > LONGEST_LINE) {
            parts.push(rest.slice(0, LONGEST_LINE));
            rest = '';
          }
          const thisSecond = Math.floor(speaker.heardAt / 1000);
          if (thisSecond !== second) {
            second = thisSecond;
            lines = 0;
          }
          lines += parts.length;
          if (lines > MOST_LINES) return false;
          const said = parts.filter((line) => line !== '').map((line) => line.slice(0, LONGEST_LINE));
          if (said.length > 0 && channel.listeners.size > 0) {
            channel.pending.push(...said);
            channel.timer ??= setTimeout(() => flush(channel), TOGETHER_MS);
          }
          return true;
        },
        leave: () => {
          if (channel.speaker !== speaker) return;
          channel.speaker = null;
          if (channel.timer) clearTimeout(channel.timer);
          flush(channel);
          tell(channel, SAYS.gone);
          forget(key, channel);
        },
      };
    },

    /** Whoever speaks as this box is cut off: its key was taken away. */
    cut: (key: string): void => channels.get(key)?.speaker?.hangUp('keyGone'),

    /** Listens to a box, whether it speaks yet or not. @returns how to stop. */
    listen: (key: string, listener: Listener): (() => void) => {
      const channel = channelOf(key);
      channel.listeners.add(listener);
      listener.send(channel.speaker ? SAYS.here : SAYS.gone);
      return () => {
        channel.listeners.delete(listener);
        forget(key, channel);
      };
    },
  };
}

export type Exchange = ReturnType<typeof makeExchange>;
