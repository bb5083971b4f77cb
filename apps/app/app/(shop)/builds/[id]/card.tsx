import { StationScreen } from '@/features/builds/station-screen';
import { CardStation } from '@/features/card/card-station';

export default function CardRoute() {
  return <StationScreen here="card">{(build) => <CardStation {...build} />}</StationScreen>;
}
