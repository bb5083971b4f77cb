import { useState } from 'react';
import { MOST_PHOTOS } from '@yosoku/core/photos/photo';
import type { BodyOf } from '@yosoku/core/record/entry';
import { useStation } from '@/logbook/station';
import { keepPhoto } from '@/store/photo-storage';
import { photosWait } from '@/store/photos-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { makePhoto } from './make-photo';

/** What is said of a photo beside its picture. */
type Said = Pick<BodyOf<'photo.taken'>, 'shows' | 'of' | 'words'>;

/** How a file becomes a photo of the build. Each is kept at once: a phone has it nowhere else. */
export function useKeepPhoto() {
  const { report, write } = useStation();
  const { id } = report.build;
  const dispatch = useAppDispatch();
  const shopId = useAppSelector((state) => state.session.account?.shopId);
  const [state, setState] = useState<{ readonly busy?: string; readonly trouble?: string }>({});

  /** @returns the fingerprint of its picture; null where nothing was added, and `trouble` says why. */
  const keep = async (file: File, said: Said): Promise<string | null> => {
    if (shopId === undefined) return null;
    if (report.photos.taken.length >= MOST_PHOTOS) {
      setState({ trouble: `A build has at most ${MOST_PHOTOS} photos. Remove one first.` });
      return null;
    }
    setState({ busy: `Making “${file.name}” smaller.` });
    const made = await makePhoto(file);
    if (!made.ok) {
      setState({ trouble: made.message });
      return null;
    }
    const { picture, bytes, width, height } = made;
    const name = { shopId, buildId: id, picture };
    try {
      // The picture first: an entry without it would be a promise that nobody can keep.
      await keepPhoto(name, bytes, true);
    } catch {
      setState({
        trouble: 'This device has no room for the photo: it was not added. Free some space and add it again.',
      });
      return null;
    }
    write('photo.taken', { picture, width, height, bytes: bytes.size, ...said });
    dispatch(photosWait([name]));
    setState({});
    return picture;
  };
  return { ...state, keep };
}
