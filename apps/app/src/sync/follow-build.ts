import type { Entry } from '@yosoku/core/logbook/entry';
import { received } from '../store/logbook-slice';
import type { Store } from '../store/store';
import { api } from './api';

/**
 * Follows a build's logbook while it is looked at: what others write into it is here within a second. The browser itself asks again
 * when the line breaks, and says what it had last.
 * @returns how to stop.
 */
export function followBuild({ dispatch, getState }: Pick<Store, 'dispatch' | 'getState'>, buildId: string): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  const known = getState().logbook.known[buildId] ?? [];
  const gap = known.findIndex((entry, at) => entry.seq !== at + 1);
  const address = api.builds[':id'].stream.$url({
    param: { id: buildId },
    query: { after: String(gap < 0 ? known.length : gap) },
  });
  const stream = new EventSource(address);
  stream.onmessage = ({ data }: MessageEvent<string>) => {
    dispatch(received({ buildId, entries: JSON.parse(data) as Entry[] }));
  };
  return () => stream.close();
}
