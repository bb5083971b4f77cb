import { StationScreen } from '@/shell/station-screen';
import { DecideStation } from '@/features/decide/decide-station';

export default function DecideRoute() {
  return (
    <StationScreen here="decide">
      <DecideStation />
    </StationScreen>
  );
}
