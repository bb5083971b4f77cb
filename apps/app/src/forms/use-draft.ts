import { draftDone, drafted } from '@/store/drafts-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';

type Draft = Readonly<Record<string, string>>;
const EMPTY: Draft = {};

/**
 * A form that is kept on the device key by key, until it is done.
 * @param place names the form: the build, and what of it.
 */
export function useDraft(place: string) {
  const dispatch = useAppDispatch();
  const draft: Draft = useAppSelector((state) => state.drafts[place]) ?? EMPTY;
  return {
    draft,
    change: (part: Draft): void => void dispatch(drafted({ place, draft: { ...draft, ...part } })),
    done: (): void => void dispatch(draftDone(place)),
  };
}
