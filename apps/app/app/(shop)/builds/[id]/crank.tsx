import { StationScreen } from '@/shell/station-screen';
import { CrankPage } from '@/features/crank/crank-page';

export default function CrankRoute() {
  return (
    <StationScreen here="crank">
      <CrankPage />
    </StationScreen>
  );
}
