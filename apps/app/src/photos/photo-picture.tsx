import { Image, View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { Words } from '@/ui/words';
import { usePicture } from './use-picture';

type Photo = Report['photos']['taken'][number];

export const NOT_HERE = {
  loading: 'Loading the photo.',
  offline: 'The photo is on the server, which cannot be reached.',
  elsewhere: 'The device that took this photo has not sent it yet.',
} as const;

interface PhotoPictureProps {
  readonly buildId: string;
  readonly photo: Photo;
  /** Room for it, pixels. */
  readonly width: number;
  readonly height: number;
}

/** The picture of a photo as large as it fits, or why it is not there. */
export function PhotoPicture({ buildId, photo, width, height }: PhotoPictureProps) {
  const found = usePicture(buildId, photo.picture);
  const scale = Math.min(width / photo.width, height / photo.height);
  const size = { width: Math.round(photo.width * scale), height: Math.round(photo.height * scale) };
  if (found.state !== 'here')
    return (
      <View className="justify-center border border-hairline p-3" style={{ minHeight: Math.min(size.height, 90) }}>
        <Words look="soft" role="status">
          {NOT_HERE[found.state]}
        </Words>
      </View>
    );
  const words = [photo.title, photo.beside, photo.words].filter((each) => each !== null).join(', ');
  return (
    <Image testID={`photo-${photo.picture.slice(0, 8)}`} source={{ uri: found.address }} alt={words} style={size} />
  );
}
