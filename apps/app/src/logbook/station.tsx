import { type ReactNode, createContext, useContext } from 'react';
import type { Report } from '@yosoku/core/report/report';
import type { Write } from './use-logbook';

/** What whoever stands in a station of a build works with. */
interface StationProps {
  readonly report: Report;
  /** Refuses where the build is signed. */
  readonly write: Write;
  /** Takes the last reading back; null where there is none, or the build is signed. */
  readonly undo: (() => void) | null;
}

const Station = createContext<StationProps | null>(null);

/** Everything inside it can ask `useStation()`. */
export const StationProvider = ({
  station,
  children,
}: {
  readonly station: StationProps;
  readonly children: ReactNode;
}) => <Station.Provider value={station}>{children}</Station.Provider>;

/**
 * The build that the screen stands at: its report, how to write into its logbook, and how to take the last reading back.
 * @example const { report, write } = useStation();
 */
export function useStation(): StationProps {
  const station = useContext(Station);
  if (!station) throw new Error('useStation() is for what stands inside a station.');
  return station;
}
