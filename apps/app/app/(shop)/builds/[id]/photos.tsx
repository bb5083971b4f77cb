import { StationScreen } from '@/shell/station-screen';
import { PhotosPage } from '@/features/photos/photos-page';

export default function PhotosRoute() {
  return (
    <StationScreen here="photos">
      <PhotosPage />
    </StationScreen>
  );
}
