import type { CompletedCard } from '../cam/complete-card';
import { READ_METHODS } from '../measure/read-methods';
import type { Findings } from '../findings/find-all';
import { placingViews } from '../findings/station-states';
import type { Report, ReportVerdict } from './report-schema';

const wait = (headline: string, action: string): ReportVerdict => ({
  kind: 'waiting',
  first: [],
  beside: [],
  delta: null,
  expanded: null,
  move: null,
  headline: `No verdict yet: ${headline}`,
  action,
  why: 'A verdict needs a proved TDC, a target from the card, and one measurement of the cam that can be compared with it.',
});

/**
 * What is missing before there can be a verdict, in the order of the work.
 * @param hint what probably went wrong with the readings of the trial, or undefined.
 */
export function noVerdict(
  { build, zero, trial, wanted, card }: Findings,
  hint: Report['trials'][number]['faults'][number] | undefined,
): ReportVerdict {
  const measured = placingViews(trial).length > 0;
  const onWheel = zero.state !== 'none' || build.asItStands?.body.wheel !== false;
  if (zero.state !== 'proved' && !measured && onWheel)
    return wait('TDC is not proved.', 'Find it at Zero, and prove it.');
  if (!wanted.ok)
    return wait('nothing to compare with.', cardLacks(build.card !== null, card.contradictions, placingViews(trial)));
  const troubled = [...(trial?.rounds ?? []), ...(trial?.traces ?? [])].find((each) => each.problem)?.problem;
  if (troubled)
    return wait(
      'a measurement does not hold.',
      hint ? `${troubled.message} Most likely ${hint.words}. ${hint.check}` : `${troubled.message} ${troubled.remedy}`,
    );
  const half = trial?.rounds.find((round) => round.lacking > 0 && READ_METHODS[round.method].reads !== 'curve');
  if (half && !measured)
    return wait(
      'one side of the nose is missing.',
      'Read the other side at the same figure; or, where the lifter does not follow, read the opening side only.',
    );
  return measured
    ? wait(
        'what was measured has nothing to be compared with.',
        placingViews(trial).find(({ against, remark }) => against === null && remark !== null)?.remark ??
          'The card prints no figure for it. Give the card’s events or lift, or measure the intake centreline.',
      )
    : wait('the cam has not been measured.', 'Read the wheel at the same drop before and after peak.');
}

function cardLacks(
  known: boolean,
  contradictions: CompletedCard['contradictions'],
  views: ReturnType<typeof placingViews>,
): string {
  if (!known) return 'Enter the card, or set a target of your own.';
  const wasRead = (gives: 'centreline' | 'events'): boolean =>
    views.some(({ valve, method }) => valve === 'intake' && READ_METHODS[method].gives === gives);
  if (contradictions.some(({ lean }) => lean === 'intake') && wasRead('centreline') && wasRead('events'))
    return 'Read both ways, the intake does not lean as the card’s centreline and events would have it. Compare what is entered at Card with the card itself, and read that lobe once more; or set a target of your own.';
  return contradictions.length > 0
    ? 'The card contradicts itself about the intake centreline. Settle it, or set a target of your own.'
    : 'The card gives no intake centreline. Enter it, or set a target of your own.';
}
