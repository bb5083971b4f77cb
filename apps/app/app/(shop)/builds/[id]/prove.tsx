import { StationScreen } from '@/shell/station-screen';
import { ProveStation } from '@/features/prove/prove-station';

export default function ProveRoute() {
  return (
    <StationScreen here="prove">
      <ProveStation />
    </StationScreen>
  );
}
