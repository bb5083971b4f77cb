import { type Draft, draftChanged, draftDone } from './drafts-slice';
import { useAppDispatch, useAppSelector } from './store';

/** What is typed in some fields; a field that nobody touched is not in it. */
type Typed<Field extends string> = string extends Field ? Draft : Readonly<Partial<Record<Field, string>>>;
const EMPTY = {};

/**
 * A form that is kept on the device key by key, until it is done.
 * @param place names the form: the build, and what of it.
 * @example const { draft, change, done } = useDraft<'name' | 'note'>(`${build.id}/sign`);
 */
export function useDraft<Field extends string>(place: string) {
  const dispatch = useAppDispatch();
  const kept = useAppSelector((state): Typed<Field> | undefined => state.drafts[place] as Typed<Field> | undefined);
  return {
    draft: kept ?? (EMPTY as Typed<Field>),
    /** Was it opened, or anything typed? */
    isBegun: kept !== undefined,
    change: (part: Typed<Field>): void => void dispatch(draftChanged({ place, part })),
    done: (): void => void dispatch(draftDone(place)),
  };
}
