import type { Report } from './report-schema';

/** What a list says of a build: whether it is signed, and its verdict. */
export const listHeadline = ({ sign, verdict }: Pick<Report, 'sign' | 'verdict'>): string =>
  sign.closed && sign.signed ? `Signed by ${sign.signed.name}. ${verdict.headline}` : verdict.headline;
