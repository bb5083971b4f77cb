import { StationScreen } from '@/shell/station-screen';
import { MoveStation } from '@/pieces/hardware-screens';

export default function MoveRoute() {
  return (
    <StationScreen here="move">
      <MoveStation />
    </StationScreen>
  );
}
