import { View } from 'react-native';
import { PHOTO_SUBJECTS } from '@yosoku/core/photos/photo';
import type { Report } from '@yosoku/core/report/report';
import { cutText } from '@yosoku/core/units/text';
import type { Place } from '@/shell/station-line';
import type { Draft } from '@/store/drafts-slice';
import { Choice } from '@/ui/choice';
import { TextField } from '@/ui/text-field';

export type Subject = (typeof PHOTO_SUBJECTS)[number];

/** What is said of a photo while it is being typed. `of` is empty where it belongs to nothing. */
export interface PhotoDraft {
  readonly shows: Subject;
  readonly of: string;
  readonly words: string;
}

const SUBJECTS: readonly { readonly value: Subject; readonly label: string }[] = [
  { value: 'card', label: 'Card' },
  { value: 'wheel', label: 'Wheel' },
  { value: 'tip', label: 'Valve tip' },
  { value: 'damage', label: 'Damage' },
  { value: 'other', label: 'Other' },
];
/** So many readings are offered at once. */
const OFFERED = 4;

const AT: Partial<Record<Place, Subject>> = {
  card: 'card',
  zero: 'wheel',
  read: 'wheel',
  trace: 'wheel',
  lobes: 'wheel',
};

/** What a photo that is taken at a station most likely shows. */
export const subjectAt = (place: Place | null): Subject => (place && AT[place]) ?? 'other';

const isSubject = (given: string | undefined): given is Subject => PHOTO_SUBJECTS.some((each) => each === given);

/** What a photo of this most likely belongs to: a card to nothing, the wheel to the newest reading unless another was chosen. */
function likelyPlace(shows: Subject, chosen: string, newest: string | undefined): string {
  if (shows === 'card') return '';
  return shows === 'wheel' && chosen === '' ? (newest ?? '') : chosen;
}

/** What was typed, filled up with what is likely. */
export function draftOf(
  typed: Draft | undefined,
  { shows, newest }: { readonly shows: Subject; readonly newest: string | undefined },
): PhotoDraft {
  const subject = isSubject(typed?.shows) ? typed.shows : shows;
  return {
    shows: subject,
    of: typed?.of ?? likelyPlace(subject, '', newest),
    words: typed?.words ?? '',
  };
}

const LONGEST_WORDS = 200;

/** What the logbook says of a photo, of what its form has. */
export const saidOf = ({ shows, of, words }: PhotoDraft) => ({
  shows,
  of: of === '' ? null : of,
  ...(words.trim() === '' ? {} : { words: cutText(words.trim(), LONGEST_WORDS) }),
});

interface PhotoFieldsProps {
  readonly draft: PhotoDraft;
  readonly of: Report['photos']['of'];
  readonly onChange: (draft: PhotoDraft) => void;
}

/** What a photo shows, which reading it belongs to, and a few words. */
export function PhotoFields({ draft, of, onChange }: PhotoFieldsProps) {
  const offered = of.filter(({ entry }, at) => at < OFFERED || entry === draft.of);
  return (
    <View className="gap-4">
      <Choice
        testID="photo-shows"
        label="What it shows"
        options={SUBJECTS}
        value={draft.shows}
        onChange={(shows) => onChange({ ...draft, shows, of: likelyPlace(shows, draft.of, of[0]?.entry) })}
      />
      {draft.shows === 'card' || offered.length === 0 ? null : (
        <Choice
          testID="photo-of"
          label="It belongs to"
          lines
          options={[
            ...offered.map(({ entry, words }) => ({ value: entry, label: words })),
            { value: '', label: 'No reading in particular' },
          ]}
          value={draft.of}
          onChange={(entry) => onChange({ ...draft, of: entry })}
        />
      )}
      <TextField
        testID="photo-words"
        label="A few words"
        hint="May stay empty."
        value={draft.words}
        onChange={(words) => onChange({ ...draft, words })}
      />
    </View>
  );
}
