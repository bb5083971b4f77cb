import { StationScreen } from '@/features/builds/station-screen';
import { CardStation } from '@/features/forms';

export default function CardRoute() {
  return <StationScreen here="card">{(build) => <CardStation {...build} />}</StationScreen>;
}
