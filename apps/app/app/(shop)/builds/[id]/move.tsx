import { StationScreen } from '@/features/builds/station-screen';
import { MoveStation } from '@/features/hardware/hardware-screens';

export default function MoveRoute() {
  return <StationScreen here="move">{(build) => <MoveStation {...build} />}</StationScreen>;
}
