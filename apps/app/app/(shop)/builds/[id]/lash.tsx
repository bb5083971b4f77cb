import { StationScreen } from '@/shell/station-screen';
import { LashStation } from '@/features/lash/lash-station';

export default function LashRoute() {
  return (
    <StationScreen here="lash">
      <LashStation />
    </StationScreen>
  );
}
