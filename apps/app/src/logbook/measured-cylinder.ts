import type { Report } from '@yosoku/core/report/report';
import type { Draft } from '@/store/drafts-slice';
import { useAppSelector } from '@/store/store';

/** Where the choices for the next reading of a trial are kept. */
export const readingPlace = (buildId: string, trial: string | null): string => `${buildId}/reading/${trial ?? 'first'}`;

/** The bank that is being measured: as chosen, else as the round that is open says. */
export function bankOf({ build, read }: Report, draft: Draft): 1 | 2 {
  if (build.engine.secondBank === null) return 1;
  if (draft.bank === undefined) return read.open.at(-1)?.bank ?? 1;
  return draft.bank === '2' ? 2 : 1;
}

/** The cylinder at which the cams of a bank are measured. */
export const cylinderOf = ({ build }: Report, bank: 1 | 2): number => (bank === 2 ? (build.engine.secondBank ?? 1) : 1);

const NOTHING: Draft = {};

/** The cylinder that is being read: as chosen among every lobe, else that of the round that is open, else the one that the cams of its bank are measured at. */
export function readCylinder(report: Report, draft: Draft): number {
  const chosen = Number(draft.cylinder ?? report.read.open.at(-1)?.cylinder);
  return chosen >= 1 && chosen <= report.build.engine.cylinders ? chosen : cylinderOf(report, bankOf(report, draft));
}

/** The cylinder that is being measured. */
export function useMeasuredCylinder(report: Report): number {
  const draft = useAppSelector((state) => state.drafts[readingPlace(report.build.id, report.read.trial)]) ?? NOTHING;
  return readCylinder(report, draft);
}
