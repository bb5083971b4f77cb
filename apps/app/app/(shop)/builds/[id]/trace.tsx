import { StationScreen } from '@/shell/station-screen';
import { TraceImport } from '@/features/read/trace-import';

export default function TraceRoute() {
  return (
    <StationScreen here="trace">
      <TraceImport />
    </StationScreen>
  );
}
