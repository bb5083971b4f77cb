import { useStore } from 'react-redux';
import { useStation } from '@/logbook/station';
import { useKeepPhoto } from '@/photos/use-keep-photo';
import type { Place } from '@/shell/station-line';
import { draftDone, drafted } from '@/store/drafts-slice';
import { type RootState, useAppDispatch, useAppSelector } from '@/store/store';
import { type PhotoDraft, draftOf, saidOf, subjectAt } from './photo-fields';

/** What is said of the next photo, and how a file becomes it. */
export function useAddPhoto(from: Place | null) {
  const { report } = useStation();
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const place = `${report.build.id}/photo`;
  const typed = useAppSelector((state) => state.drafts[place]);
  const draft = draftOf(typed, { shows: subjectAt(from), newest: report.photos.of[0]?.entry });
  const { busy, trouble, keep } = useKeepPhoto();
  return {
    draft,
    ...(busy === undefined ? {} : { busy }),
    ...(trouble === undefined ? {} : { trouble }),
    add: async (file: File): Promise<void> => {
      const added = await keep(file, saidOf(draft));
      // What was typed meanwhile belongs to the next one.
      if (added !== null && store.getState().drafts[place] === typed) dispatch(draftDone(place));
    },
    change: (changed: PhotoDraft): void => void dispatch(drafted({ place, draft: { ...changed } })),
  };
}
