import { StationScreen } from '@/shell/station-screen';
import { SheetScreen } from '@/features/sheet/sheet-screen';

export default function SheetRoute() {
  return (
    <StationScreen here="sheet">
      <SheetScreen />
    </StationScreen>
  );
}
