import { StationScreen } from '@/shell/station-screen';
import { PrepareStation } from '@/features/prepare/prepare-station';

export default function PrepareRoute() {
  return (
    <StationScreen here="prepare">
      <PrepareStation />
    </StationScreen>
  );
}
