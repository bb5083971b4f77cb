import { StationScreen } from '@/shell/station-screen';
import { EveryLobe } from '@/features/read/every-lobe';

export default function LobesRoute() {
  return (
    <StationScreen here="lobes">
      <EveryLobe />
    </StationScreen>
  );
}
