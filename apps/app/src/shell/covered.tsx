import { createContext, useContext, useEffect } from 'react';

/** Tells the frame round a station to cover what was read at Zero. */
export const CoverContext = createContext<(covered: boolean) => void>(() => undefined);

/** Covers it for as long as the caller is on the screen and wants it so: who reads a contact again must not see what it was. */
export function useCover(wanted: boolean): void {
  const cover = useContext(CoverContext);
  useEffect(() => {
    cover(wanted);
    return () => cover(false);
  }, [cover, wanted]);
}
