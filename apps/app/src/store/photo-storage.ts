import { del, entries, get, set } from 'idb-keyval';
import { openStore } from './device-store';

/**
 * Pictures on this device, a record each: those that the server has not got yet, until it has them, and the last ones that were looked at,
 * so that they are there without a network.
 */
const photos = openStore('yosoku-photos', 'pictures');

/** A picture and where it belongs. Its fingerprint is its name, see `photo.taken`. */
export interface PhotoName {
  readonly shopId: string;
  readonly buildId: string;
  readonly picture: string;
}

interface KeptPhoto extends PhotoName {
  readonly bytes: Blob;
  /** Has the server not got it yet? */
  readonly waits: boolean;
  /** When it was kept or looked at last, ms. */
  readonly usedAt: number;
}

/** Pictures that the server has stay until so many newer ones were looked at. */
const MOST_SEEN = 60;

const keyOf = ({ buildId, picture }: Pick<PhotoName, 'buildId' | 'picture'>): string => `${buildId}/${picture}`;
const DB_GONE = 'This browser keeps nothing on the device: photos need that.';

/** Keeps a picture. Throws where the device is full, or keeps nothing. */
export async function keepPhoto(name: PhotoName, bytes: Blob, waits: boolean): Promise<void> {
  if (!photos) throw new Error(DB_GONE);
  const kept: KeptPhoto = { ...name, bytes, waits, usedAt: Date.now() };
  await set(keyOf(name), kept, photos);
  if (!waits) await forgetOldest();
}

/** A picture that is on this device, or null. */
export async function readPhoto(name: PhotoName): Promise<Blob | null> {
  if (!photos) return null;
  const kept = await get<KeptPhoto>(keyOf(name), photos);
  return kept?.shopId === name.shopId ? kept.bytes : null;
}

/** What the server has not got yet, the oldest first. */
export async function readWaitingPhotos(): Promise<PhotoName[]> {
  if (!photos) return [];
  const kept = await entries<string, KeptPhoto>(photos);
  return kept
    .map(([, each]) => each)
    .filter(({ waits }) => waits)
    .sort((a, b) => a.usedAt - b.usedAt)
    .map(({ shopId, buildId, picture }) => ({ shopId, buildId, picture }));
}

/** The server has it. */
export async function photoArrived(name: PhotoName): Promise<void> {
  const bytes = await readPhoto(name);
  if (bytes) await keepPhoto(name, bytes, false);
}

/** Whoever takes up the device next finds no pictures but those that wait to be sent. */
export async function forgetSeenPhotos(): Promise<void> {
  if (!photos) return;
  for (const [key, { waits }] of await entries<string, KeptPhoto>(photos)) if (!waits) await del(key, photos);
}

async function forgetOldest(): Promise<void> {
  if (!photos) return;
  const seen = (await entries<string, KeptPhoto>(photos)).filter(([, { waits }]) => !waits);
  seen.sort(([, a], [, b]) => b.usedAt - a.usedAt);
  for (const [key] of seen.slice(MOST_SEEN)) await del(key, photos);
}
