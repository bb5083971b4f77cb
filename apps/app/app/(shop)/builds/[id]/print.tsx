import { StationScreen } from '@/shell/station-screen';
import { PrintPage } from '@/pieces/print';

export default function PrintRoute() {
  return (
    <StationScreen here="print">
      <PrintPage />
    </StationScreen>
  );
}
