import { useState } from 'react';
import { useStore } from 'react-redux';
import { MOST_PHOTOS } from '@yosoku/core/photos/photo';
import { useStation } from '@/logbook/station';
import { makePhoto } from '@/photos/make-photo';
import type { Place } from '@/shell/station-line';
import { draftDone, drafted } from '@/store/drafts-slice';
import { keepPhoto } from '@/store/photo-storage';
import { photosWait } from '@/store/photos-slice';
import { type RootState, useAppDispatch, useAppSelector } from '@/store/store';
import { type PhotoDraft, draftOf, saidOf, subjectAt } from './photo-fields';

/** What is said of the next photo, and how a file becomes it. Each is kept at once: a phone has it nowhere else. */
export function useAddPhoto(from: Place | null) {
  const { report, write } = useStation();
  const { id } = report.build;
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const place = `${id}/photo`;
  const typed = useAppSelector((state) => state.drafts[place]);
  const shopId = useAppSelector((state) => state.session.account?.shopId);
  const draft = draftOf(typed, { shows: subjectAt(from), newest: report.photos.of[0]?.entry });
  const [state, setState] = useState<{ readonly busy?: string; readonly trouble?: string }>({});

  const add = async (file: File): Promise<void> => {
    if (shopId === undefined) return;
    if (report.photos.taken.length >= MOST_PHOTOS) {
      setState({ trouble: `A build has at most ${MOST_PHOTOS} photos. Remove one first.` });
      return;
    }
    setState({ busy: `Making “${file.name}” smaller.` });
    const made = await makePhoto(file);
    if (!made.ok) {
      setState({ trouble: made.message });
      return;
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
      return;
    }
    write('photo.taken', { picture, width, height, bytes: bytes.size, ...saidOf(draft) });
    dispatch(photosWait([name]));
    // What was typed meanwhile belongs to the next one.
    if (store.getState().drafts[place] === typed) dispatch(draftDone(place));
    setState({});
  };
  return {
    draft,
    ...state,
    add,
    change: (changed: PhotoDraft): void => void dispatch(drafted({ place, draft: { ...changed } })),
  };
}
