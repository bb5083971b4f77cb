import type { Station } from '../record/entries/stations';
import type { Report } from './report-schema';

/** How far TDC has come, where nothing else can be said yet. */
const ZERO_WORDS: Readonly<Record<Report['zero']['state'], string>> = {
  none: 'TDC not looked for yet.',
  open: 'Looking for TDC.',
  found: 'TDC found; the wheel is to be set.',
  set: 'Wheel set; to be proved.',
  proved: 'TDC proved; the cam is to be measured.',
  failed: 'The proof of TDC failed.',
  rough: 'TDC only roughly known.',
  void: 'TDC is no longer valid; find it again.',
};

const isUnsought = ({ state }: Report['zero']): boolean => state === 'none' || state === 'open';

/** What a list says of a build: whether it is signed, its verdict, and that it was left so knowingly; before that how far TDC has come, or its lash where that alone was looked at. */
export const listHeadline = ({
  sign,
  verdict,
  accepted,
  lash,
  zero,
}: Pick<Report, 'sign' | 'verdict' | 'accepted' | 'lash' | 'zero'>): string => {
  const place = accepted.find(({ view, stands }) => view === null && stands);
  const begun = lash.job && isUnsought(zero) ? `Lash: ${lash.job.countWords}` : ZERO_WORDS[zero.state];
  const judged = verdict.kind === 'waiting' ? begun : verdict.headline;
  const said = place ? `${judged} ${place.words}` : judged;
  return sign.closed && sign.signed ? `Signed by ${sign.signed.name}. ${said}` : said;
};

/** Work of the valve train that is done on engines whose cam nobody measures. */
const APART = ['lash', 'rockers'] as const;

/** Where a list leads to in a build: on to the first thing that is due. */
export function listPlace({ verdict, zero, stations }: Pick<Report, 'verdict' | 'zero' | 'stations'>): Station {
  if (verdict.kind !== 'waiting') return 'decide';
  if (zero.state === 'proved') return 'read';
  const apart = APART.find((name) => stations.some(({ station, state }) => station === name && state !== 'due'));
  return apart !== undefined && isUnsought(zero) ? apart : 'zero';
}
