import { StationScreen } from '@/shell/station-screen';
import { ReadStation } from '@/features/read/read-station';

export default function ReadRoute() {
  return (
    <StationScreen here="read">
      <ReadStation />
    </StationScreen>
  );
}
