import ReconnectingWebSocket from 'partysocket/ws';

/** How a line to the server stands. */
type Link = 'opening' | 'open' | 'broken';

const COMES_BACK = {
  minReconnectionDelay: 400,
  maxReconnectionDelay: 5_000,
  reconnectionDelayGrowFactor: 2,
  // An attempt that nobody answers is given up; a line that opened is whole again at once.
  connectionTimeout: 8_000,
  minUptime: 0,
} as const;

interface LineParts {
  readonly onOpen: () => void;
  /** Each line of what came, without its end. */
  readonly onWords: (words: string) => void;
  /** Something came, or the line stands otherwise than before. */
  readonly onChange: () => void;
}

/**
 * A line to the server that comes back by itself when it breaks, sooner at first, then less often.
 * @param path of the server's line, under `/api`.
 */
export function openLine(path: string, { onOpen, onWords, onChange }: LineParts) {
  let link: Link = 'opening';
  const socket = new ReconnectingWebSocket(
    `${location.origin.replace(/^http/, 'ws')}/api${path}`,
    undefined,
    COMES_BACK,
  );
  socket.onopen = () => {
    link = 'open';
    onOpen();
    onChange();
  };
  socket.onmessage = ({ data }: MessageEvent<string>) => {
    for (const words of data.split('\n')) onWords(words);
    onChange();
  };
  socket.onclose = () => {
    link = 'broken';
    onChange();
  };
  return {
    link: (): Link => link,
    /** Says something, where somebody may hear it: what nobody hears is not said later, since an order belongs to the moment. */
    say: (order: object): void => {
      if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(order));
    },
    close: (): void => {
      socket.onclose = null;
      socket.close();
    },
  };
}
