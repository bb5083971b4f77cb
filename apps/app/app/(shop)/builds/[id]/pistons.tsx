import { StationScreen } from '@/shell/station-screen';
import { PistonPage } from '@/features/clear/piston-page';

export default function PistonsRoute() {
  return (
    <StationScreen here="pistons">
      <PistonPage />
    </StationScreen>
  );
}
