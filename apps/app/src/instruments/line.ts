/** How a line to the server stands. */
type Link = 'opening' | 'open' | 'broken';

const FIRST_PAUSE_MS = 400;
const LONGEST_PAUSE_MS = 5_000;

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
  let socket: WebSocket | null = null;
  let pause = FIRST_PAUSE_MS;
  let retry: ReturnType<typeof setTimeout> | undefined;
  let closed = false;
  const connect = (): void => {
    link = link === 'open' ? 'broken' : link;
    const fresh = new WebSocket(`${location.origin.replace(/^http/, 'ws')}/api${path}`);
    socket = fresh;
    fresh.onopen = () => {
      link = 'open';
      pause = FIRST_PAUSE_MS;
      onOpen();
      onChange();
    };
    fresh.onmessage = ({ data }: MessageEvent<string>) => {
      for (const words of data.split('\n')) onWords(words);
      onChange();
    };
    fresh.onclose = () => {
      if (closed || socket !== fresh) return;
      link = 'broken';
      onChange();
      retry = setTimeout(connect, pause);
      pause = Math.min(LONGEST_PAUSE_MS, pause * 2);
    };
  };
  connect();
  return {
    link: (): Link => link,
    /** Says something, where somebody may hear it. */
    say: (order: object): void => {
      if (socket?.readyState === WebSocket.OPEN) socket.send(JSON.stringify(order));
    },
    close: (): void => {
      closed = true;
      clearTimeout(retry);
      socket?.close();
    },
  };
}
