import { readPhoto } from '../store/photo-storage';
import { photoDelivered, photoRefused } from '../store/photos-slice';
import { reached } from '../store/outbox-slice';
import { selectOwnPhotosWaiting } from '../store/selectors';
import type { Store } from '../store/store';
import { LONG_PATIENCE_MS, api, ask } from './api';
import { type PostOutcome, refusalIn } from './post-waiting';

/** Fetches or sends a picture. Throws `Refusal` or `Unreachable`. */
export const askForPhoto = (buildId: string, picture: string, init: RequestInit = {}): Promise<Blob> =>
  ask(
    fetch(api.builds[':id'].photos[':picture'].$url({ param: { id: buildId, picture } }), {
      ...init,
      signal: AbortSignal.timeout(LONG_PATIENCE_MS),
    }).then((answer) => ({
      ok: answer.ok,
      status: answer.status,
      json: () => (answer.ok ? answer.blob() : answer.json()),
    })),
  );

/**
 * Sends the pictures that wait, one after the other, when the entries that name them are sent. What the server refuses is put aside with its reason;
 * where it only fails, the others are tried and this one comes again. Sending twice is harmless.
 */
export async function postPhotos(store: Pick<Store, 'dispatch' | 'getState'>): Promise<PostOutcome> {
  let outcome: PostOutcome = 'done';
  for (const { refused, ...name } of selectOwnPhotosWaiting(store.getState())) {
    if (refused !== undefined) continue;
    if (store.getState().session.lapsed) return 'signed-out';
    const bytes = await readPhoto(name);
    if (!bytes) {
      store.dispatch(photoRefused({ ...name, reason: 'A photo is no longer on this device.' }));
      continue;
    }
    try {
      await askForPhoto(name.buildId, name.picture, {
        method: 'PUT',
        headers: { 'Content-Type': 'image/jpeg' },
        body: bytes,
      });
      store.dispatch(reached(true));
      store.dispatch(photoDelivered(name));
    } catch (error) {
      const refusal = refusalIn(error, store);
      if (typeof refusal === 'string') return refusal;
      if (refusal.status === 429 || refusal.status >= 500) outcome = 'unreachable';
      else store.dispatch(photoRefused({ ...name, reason: refusal.detail }));
    }
  }
  return outcome;
}
