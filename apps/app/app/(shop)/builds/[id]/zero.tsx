import { StationScreen } from '@/shell/station-screen';
import { ZeroStation } from '@/features/zero/zero-station';

export default function ZeroRoute() {
  return (
    <StationScreen here="zero">
      <ZeroStation />
    </StationScreen>
  );
}
