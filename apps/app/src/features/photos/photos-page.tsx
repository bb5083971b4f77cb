import { useLocalSearchParams } from 'expo-router';
import { View, useWindowDimensions } from 'react-native';
import { useStation } from '@/logbook/station';
import { StationBody } from '@/shell/station-body';
import { PLACE_NAMES, type Place, placeHref } from '@/shell/station-line';
import { FileField } from '@/ui/file-field';
import { Notice } from '@/ui/notice';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';
import { PhotoCard } from './photo-card';
import { PhotoFields } from './photo-fields';
import { useAddPhoto } from './use-add-photo';

const isPlace = (given: string | undefined): given is Place => given !== undefined && given in PLACE_NAMES;

/** Photos of a build: say what the next one shows, take or choose it, see them all. */
export function PhotosPage() {
  const { report } = useStation();
  const { taken, of } = report.photos;
  const { id, practice } = report.build;
  const { from } = useLocalSearchParams<{ from?: string }>();
  const { width } = useWindowDimensions();
  const station = isPlace(from) && from !== 'photos' ? from : null;
  const { draft, busy, trouble, add, change } = useAddPhoto(station);
  const back = station ?? 'sheet';
  const open = !practice && !report.sign.closed;
  return (
    <StationBody
      footer={
        practice ? null : (
          <FileField
            testID="add-photo"
            look="primary"
            label="Take or choose a photo"
            accept="image/*"
            onFile={(file) => void add(file)}
          />
        )
      }
    >
      <View className="max-w-[680px] gap-5 px-4 wide:px-0 pb-10 pt-2">
        <TextLink href={placeHref(id, back)} replace small className="self-start py-2" testID="photos-back">
          {`‹ Back to ${PLACE_NAMES[back]}`}
        </TextLink>
        <Words look="title" level={1}>
          Photos
        </Words>
        <HowItGoes busy={busy} trouble={trouble} />
        {open ? <PhotoFields draft={draft} of={of} onChange={change} /> : null}
        {taken.length > 0 ? null : (
          <Words look="soft">
            {practice
              ? 'An engine that does not exist has no photos.'
              : 'No photos yet. A photo of the card, of the wheel at a reading, or of damage says more later than a sentence. Location and other camera data are removed.'}
          </Words>
        )}
        {[...taken].reverse().map((photo) => (
          <PhotoCard key={photo.entry} photo={photo} width={Math.min(width - 32, 680)} />
        ))}
      </View>
    </StationBody>
  );
}

/** What becomes of the file that was chosen. */
function HowItGoes({ busy, trouble }: Pick<ReturnType<typeof useAddPhoto>, 'busy' | 'trouble'>) {
  if (trouble) return <Notice kind="danger" testID="photo-trouble" message={trouble} />;
  return busy ? (
    <Words look="soft" role="status">
      {busy}
    </Words>
  ) : null;
}
