import type { Stand } from '@yosoku/core/simulation/whole-engine';

/** How the practice engines that were looked at stand at this moment: what is written down is kept with it. */
const engines = new Map<string, () => Stand>();

export const standsHere = (id: string, stand: () => Stand): void => void engines.set(id, stand);

/** How an engine stands by the latest moment; null where it has not been looked at since the page was loaded. */
export const standingNow = (id: string): Stand | null => engines.get(id)?.() ?? null;
