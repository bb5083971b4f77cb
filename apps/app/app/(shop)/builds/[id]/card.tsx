import { StationScreen } from '@/shell/station-screen';
import { CardStation } from '@/pieces/forms';

export default function CardRoute() {
  return (
    <StationScreen here="card">
      <CardStation />
    </StationScreen>
  );
}
