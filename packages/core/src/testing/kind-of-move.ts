import type { BodyOf } from '../record/entry';
import type { Report } from '../report/report';

type Plan = Report['move']['plans'][number];

/** What is written down when a plan has been carried out. */
export const kindOfMove = ({ parts, cams, predicted }: Plan): NonNullable<BodyOf<'trial.begun'>['move']> => ({
  parts: parts.map(({ part, setting }) => ({ part, to: setting })),
  cams: cams.map(({ cam, bank, by, standard }) => ({ cam, bank, by, standard })),
  predicted: [...predicted],
});
