import { StationScreen } from '@/shell/station-screen';
import { RockersStation } from '@/features/rockers/rockers-station';

export default function RockersRoute() {
  return (
    <StationScreen here="rockers">
      <RockersStation />
    </StationScreen>
  );
}
