import type { Report } from '@yosoku/core/report/report';

/** Ids of the readings that lean on a position of the wheel. */
export const leaningOn = ({ trials }: Report, setting: string | null): string[] =>
  trials
    .flatMap((trial) => trial.rounds.flatMap((round) => round.readings))
    .filter((reading) => setting !== null && reading.setting === setting)
    .map(({ entry }) => entry);
