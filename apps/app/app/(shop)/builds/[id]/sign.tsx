import { StationScreen } from '@/shell/station-screen';
import { SignStation } from '@/features/sign/sign-station';

export default function SignRoute() {
  return (
    <StationScreen here="sign">
      <SignStation />
    </StationScreen>
  );
}
