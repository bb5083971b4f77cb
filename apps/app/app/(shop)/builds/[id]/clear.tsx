import { StationScreen } from '@/shell/station-screen';
import { ClearStation } from '@/features/clear/clear-station';

export default function ClearRoute() {
  return (
    <StationScreen here="clear">
      <ClearStation />
    </StationScreen>
  );
}
