import type { Entry } from '@yosoku/core/record/entry';
import { received } from '../store/logbook-slice';
import type { Store } from '../store/store';
import { api } from './api';

/**
 * Follows a build's logbook while it is looked at: what others write into it is here within a second. The browser itself asks again
 * when the line breaks, and says what it had last. A page that nobody sees lets its line go: a browser has only a few to one server.
 * @returns how to stop.
 */
export function followBuild({ dispatch, getState }: Pick<Store, 'dispatch' | 'getState'>, buildId: string): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  let stream: EventSource | null = null;
  const leave = (): void => {
    stream?.close();
    stream = null;
  };
  const follow = (): void => {
    if (stream || document.visibilityState === 'hidden') return;
    const known = getState().logbook.known[buildId] ?? [];
    const gap = known.findIndex((entry, at) => entry.seq !== at + 1);
    stream = new EventSource(
      api.builds[':id'].stream.$url({
        param: { id: buildId },
        query: { after: String(gap < 0 ? known.length : gap) },
      }),
    );
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      dispatch(received({ buildId, entries: JSON.parse(data) as Entry[] }));
    };
  };
  const look = (): void => (document.visibilityState === 'hidden' ? leave() : follow());
  document.addEventListener('visibilitychange', look);
  window.addEventListener('pagehide', leave);
  window.addEventListener('pageshow', follow);
  follow();
  return () => {
    document.removeEventListener('visibilitychange', look);
    window.removeEventListener('pagehide', leave);
    window.removeEventListener('pageshow', follow);
    leave();
  };
}
