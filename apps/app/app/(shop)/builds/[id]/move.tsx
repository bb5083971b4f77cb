import { StationScreen } from '@/features/builds/station-screen';
import { MoveStation } from '@/features/move/move-station';

export default function MoveRoute() {
  return <StationScreen here="move">{(build) => <MoveStation {...build} />}</StationScreen>;
}
