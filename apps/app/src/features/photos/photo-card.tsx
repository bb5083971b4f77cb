import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { dayWords } from '@/logbook/closed';
import { useStation } from '@/logbook/station';
import { PhotoPicture } from '@/photos/photo-picture';
import { PrimaryButton, QuietButton } from '@/ui/buttons';
import { Words } from '@/ui/words';
import { type PhotoDraft, PhotoFields, saidOf } from './photo-fields';

/** Height of a photo among others, and of one that is looked at. */
const SMALL = 200;
const LARGE = 900;

interface PhotoCardProps {
  readonly photo: Report['photos']['taken'][number];
  /** Room for it, pixels. */
  readonly width: number;
}

/** One photo with what is said of it. Pressed, it is as large as the screen lets it be. */
export function PhotoCard({ photo, width }: PhotoCardProps) {
  const { report, write } = useStation();
  const [large, setLarge] = useState(false);
  const [draft, setDraft] = useState<PhotoDraft | null>(null);
  const { entry, title, beside, words, shows, of, picture, width: wide, height, bytes } = photo;
  const under = [beside, dayWords(photo.takenAt)].filter((each) => each !== null).join(' · ');
  const change = (changed: PhotoDraft): void => {
    write('photo.taken', { picture, width: wide, height, bytes, ...saidOf(changed) });
    write('entry.voided', { voids: entry, reason: 'Corrected.' });
  };
  return (
    <View className="gap-1 border-t border-hairline pt-3" testID={`photo-of-${shows}`}>
      <Pressable
        role="button"
        aria-label={large ? `${title}: smaller` : `${title}: larger`}
        onPress={() => setLarge(!large)}
        className="self-start"
      >
        <PhotoPicture buildId={report.build.id} photo={photo} width={width} height={large ? LARGE : SMALL} />
      </Pressable>
      <Words look="label">{words ?? title}</Words>
      <Words look="soft">{words === null ? under : `${title} · ${under}`}</Words>
      {report.sign.closed ? null : draft ? (
        <View className="gap-4 pt-2">
          <PhotoFields draft={draft} of={report.photos.of} onChange={setDraft} />
          <PrimaryButton testID="photo-changed" label="Save" onPress={() => change(draft)} />
          <QuietButton label="Cancel" onPress={() => setDraft(null)} />
        </View>
      ) : (
        <View className="flex-row gap-x-4">
          <QuietButton
            testID="photo-change"
            label="Change"
            onPress={() => setDraft({ shows, of: of ?? '', words: words ?? '' })}
          />
          <QuietButton
            testID="photo-out"
            label="Remove"
            onPress={() => write('entry.voided', { voids: entry, reason: 'Removed.' })}
          />
        </View>
      )}
    </View>
  );
}
