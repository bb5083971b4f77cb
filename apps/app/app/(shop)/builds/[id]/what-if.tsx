import { StationScreen } from '@/shell/station-screen';
import { WhatIf } from '@/features/decide/what-if';

export default function WhatIfRoute() {
  return (
    <StationScreen here="what-if">
      <WhatIf />
    </StationScreen>
  );
}
