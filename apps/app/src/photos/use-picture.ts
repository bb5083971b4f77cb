import { useEffect, useState } from 'react';
import { keepPhoto, readPhoto } from '@/store/photo-storage';
import { useAppSelector } from '@/store/store';
import { Refusal } from '@/sync/api';
import { askForPhoto } from '@/sync/post-photos';

/** The picture of a photo: an address for it while it is looked at, or why it is not there. */
export type PictureHere =
  { readonly state: 'loading' | 'offline' | 'elsewhere' } | { readonly state: 'here'; readonly address: string };

/** The bytes of a picture: from this device, else from the server, and then kept here. Throws what the server said against it. */
export async function fetchPicture(shopId: string, buildId: string, picture: string): Promise<Blob> {
  const name = { shopId, buildId, picture };
  const here = await readPhoto(name).catch(() => null);
  if (here) return here;
  const bytes = await askForPhoto(buildId, picture);
  await keepPhoto(name, bytes, false).catch(() => undefined);
  return bytes;
}

/** @returns elsewhere: the device that took it has not sent it yet. */
export function usePicture(buildId: string, picture: string): PictureHere {
  const shopId = useAppSelector((state) => state.session.account?.shopId);
  const reachable = useAppSelector((state) => state.outbox.reachable);
  const [found, setFound] = useState<PictureHere>({ state: 'loading' });
  useEffect(() => {
    if (shopId === undefined) return;
    let gone = false;
    let address: string | null = null;
    fetchPicture(shopId, buildId, picture).then(
      (bytes) => {
        if (gone) return;
        address = URL.createObjectURL(bytes);
        setFound({ state: 'here', address });
      },
      (error: unknown) => {
        if (!gone) setFound({ state: error instanceof Refusal ? 'elsewhere' : 'offline' });
      },
    );
    return () => {
      gone = true;
      if (address !== null) URL.revokeObjectURL(address);
    };
    // Asked again as soon as the server is there.
  }, [shopId, buildId, picture, reachable]);
  return found;
}
