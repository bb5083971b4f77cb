import { USUAL_HEIGHT } from '../../cam/usual-height';
import { NORMAL_95 } from '../../statistics/normal';
import { EVENT_NAMES, SIDE_WORDS, closesAsPrinted, opensAsPrinted } from '../../cam/card';
import { wrap180 } from '../../units/angle';
import { computedDegrees } from '../../units/degrees';
import { formatComputedLength, formatLength } from '../../units/length';
import type { TraceFinding } from '../readings/read-traces';
import { UNPROVED_TDC } from '../readings/zero-passes';
import { eventFigure } from './card-events';
import { type View, type ViewContext, makeView, sign, plainDegrees } from './view';

/** Where a valve is as good as on its seat, mm: 0.006 in. From memory. */
const SEAT = 0.1524;

/** What a trace says of the cam’s place: its centreline at the usual drop, crank degrees; its events and its lift at TDC beside it. */
export function traceViews(context: ViewContext, trace: TraceFinding): View[] {
  const { curve, valve, shift } = trace;
  const { units } = context.build.description.body;
  if (!curve || !trace.placed) return [];
  const drop = Math.min(USUAL_HEIGHT[units], curve.peak / 3);
  const centre = curve.centre(curve.peak - drop);
  if (!centre) return [];
  const tdc = trace.zero?.standard ?? UNPROVED_TDC;
  const printed = sign(valve) * wrap180(centre.angle + shift);
  const target = context.wanted[valve];
  const standard = Math.hypot(centre.standard, tdc);
  const lines = context.card[valve].lines.filter(({ height }) => height !== null);
  const heights = [...new Set([...lines.map(({ height }) => height ?? 0), USUAL_HEIGHT[units], SEAT])].filter(
    (height) => height < curve.peak,
  );
  const events = heights.flatMap((height) => {
    const flanks = curve.flanks(height);
    if (!flanks) return [];
    const opens = wrap180(opensAsPrinted(valve, flanks.opening.angle + shift));
    const closes = wrap180(closesAsPrinted(valve, flanks.closing.angle + shift));
    const names = EVENT_NAMES[valve];
    return [
      `at ${formatLength(height, units)} ${names.opens} ${eventFigure(opens, valve, 'opens')}, ${names.closes} ${eventFigure(closes, valve, 'closes')}, ${computedDegrees(flanks.closing.angle - flanks.opening.angle)} long`,
    ];
  });
  return [
    makeView(
      'trace',
      valve,
      { mean: printed, spread: 0, count: 1, standard, expanded: NORMAL_95 * standard, budget: [] },
      {
        budget: [
          { from: 'the indicator', standard: centre.standard },
          { from: 'TDC', standard: tdc },
        ],
        key: `trace ${trace.id}`,
        title: `${valve === 'intake' ? 'Intake' : 'Exhaust'} centreline of the trace, ${formatLength(drop, units)} drop`,
        shows: `${computedDegrees(printed, 2)} ${SIDE_WORDS[valve].centreline}`,
        detail: [...events, `lift at TDC ${formatComputedLength(Math.max(0, curve.lift(-shift)), units)}`].join('; '),
        against: target === null ? null : `${EVENT_NAMES[valve].centreline} ${plainDegrees(target)}°`,
        proved: trace.zeroProved,
      },
    ),
  ];
}
