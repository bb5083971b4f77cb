import { type Firing, companion, firingTdcs, topOnWheel } from '../crank/firing';
import { formatReading, readingAt } from '../crank/wheel';
import type { Build } from '../record/fold';
import { wheelDegrees } from '../units/degrees';
import type { LashStop } from '../valve-train/lash-orders';
import type { Report } from './report-schema';

/** Where the crank is held while a valve is set, in words and on the wheel. */

type Stop = Report['lash']['orders'][number]['stops'][number];

/** How places of the crank are put into words on this engine. */
export interface CrankWords {
  readonly firing: Firing;
  /** What the pointer of a wheel set to TDC shows; null where there is none that could. */
  readonly ring: (at: number) => number | null;
  readonly shows: (at: number) => string | null;
}

export function crankWords({ description, asItStands, zero }: Build): CrankWords {
  const { engine, wheel } = description.body;
  const firing = { order: engine.firingOrder, angles: engine.firingAngles };
  const origin = firingTdcs(firing).find(({ cylinder }) => cylinder === (zero?.begun.cylinder ?? 1))?.after ?? 0;
  const isRead = wheel.ring !== 'rim' && asItStands?.body.wheel !== false;
  const ring = (at: number): number | null => (isRead ? topOnWheel(at - origin) : null);
  return {
    firing,
    ring,
    shows(at) {
      const place = ring(at);
      return place === null ? null : formatReading(readingAt(wheel, Math.round(place)));
    },
  };
}

const WATCHED = {
  'exhaust-opens': (cylinder: number) => `the exhaust of cylinder ${cylinder} just begins to open`,
  'intake-closes': (cylinder: number) =>
    `the intake of cylinder ${cylinder} has been fully open and is more than half closed again`,
} as const;

/** Where the crank is held, in words without a verb: "120° after, cylinder 5 at its firing TDC". */
export function placeOf({ at, fires, watched }: LashStop, { firing, shows }: CrankWords): string {
  if (watched) return WATCHED[watched.seen](watched.cylinder);
  if (at === null) return '';
  const read = shows(at);
  const before = lastFired(firing, at);
  const said =
    fires === null
      ? `${wheelDegrees(Math.round(before.since))} after cylinder ${before.cylinder} has fired`
      : `cylinder ${fires} at its firing TDC`;
  return read === null ? said : `${read}, ${said}`;
}

/** What shows which turn it is without a wheel: where a cylinder fires, the valves of its companion rock. */
function signOf({ at, fires, watched }: LashStop, { firing }: CrankWords): string | null {
  if (at === null || watched) return null;
  const before = lastFired(firing, at);
  const partner = companion(firing, before.cylinder);
  if (partner === null) return null;
  return fires === null
    ? `Cylinder ${before.cylinder} fires where the valves of cylinder ${partner} rock.`
    : `There the valves of cylinder ${partner} rock.`;
}

/** The cylinder that fired last before a place of the crank, and how long since. */
const lastFired = (firing: Firing, at: number) =>
  firingTdcs(firing)
    .map(({ cylinder, after }) => ({ cylinder, since: (at - after + 720) % 720 }))
    .reduce((near, each) => (each.since < near.since ? each : near));

export const reportStop = (stop: LashStop, crank: CrankWords): Stop => ({
  at: stop.at,
  place: placeOf(stop, crank),
  sign: signOf(stop, crank),
  ring: stop.at === null || stop.watched ? null : crank.ring(stop.at),
  valves: [...stop.valves],
});
