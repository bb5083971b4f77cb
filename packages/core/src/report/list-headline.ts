import type { Report } from './report-schema';

/** What a list says of a build: whether it is signed, its verdict, and that it was left so knowingly. */
export const listHeadline = ({ sign, verdict, accepted }: Pick<Report, 'sign' | 'verdict' | 'accepted'>): string => {
  const place = accepted.find(({ view, stands }) => view === null && stands);
  const said = place ? `${verdict.headline} ${place.words}` : verdict.headline;
  return sign.closed && sign.signed ? `Signed by ${sign.signed.name}. ${said}` : said;
};
