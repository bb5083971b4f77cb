import type { Report } from './report-schema';

/** What a list says of a build: whether it is signed, its verdict, and that it was left so knowingly; its lash, where nothing else was looked at. */
export const listHeadline = ({
  sign,
  verdict,
  accepted,
  lash,
}: Pick<Report, 'sign' | 'verdict' | 'accepted' | 'lash'>): string => {
  const place = accepted.find(({ view, stands }) => view === null && stands);
  const judged = verdict.kind === 'waiting' && lash.job ? `Lash: ${lash.job.countWords}` : verdict.headline;
  const said = place ? `${judged} ${place.words}` : judged;
  return sign.closed && sign.signed ? `Signed by ${sign.signed.name}. ${said}` : said;
};
