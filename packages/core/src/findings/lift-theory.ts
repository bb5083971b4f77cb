import type { Valve } from '../cam/card';
import type { CompletedCard } from '../cam/complete-card';
import type { BodyOf } from '../record/entry';
import type { Build } from '../record/fold';
import type { Trial } from '../record/parts';
import { remember } from '../record/remember';
import { inches } from '../units/length';
import { lashHere } from './lash-here';
import { statedRatio } from './stated-ratio';

/** What pressed against the valve while its lift was read. */
export type Springs = 'checking' | 'valve';

/** Lift at one valve against lobe × ratio. Lengths mm. */
export interface TheoryFinding {
  readonly cylinder: number;
  readonly theory: number;
  /** As read under light springs, under the running ones, and where nobody said under which. */
  readonly checking: number | null;
  readonly running: number | null;
  readonly unsaid: number | null;
  /** What is short of theory under the lightest springs that were on, and what the running ones take beside; null where both were not on. */
  readonly lost: number;
  readonly bends: number | null;
  /** unsaid: only one kind of spring was on, and it cannot be told what of the loss bends. */
  readonly names: 'nothing' | 'geometry' | 'deflection' | 'both' | 'unsaid' | 'above';
}

type Reading = BodyOf<'reading.taken'>;
type Peak = Reading & { readonly shows: Extract<Reading['shows'], { readonly kind: 'peak-lift' }> };

/** What a lift at the valve and its theory may differ by before anything is called lost, mm: dial, lash, and a per cent of the ratio. From memory. */
const READ = inches('0.004');
const OF_RATIO = 0.01;

/** Under which springs each lift of a trial was read: entry → springs. */
export const springsOf = ({ rounds }: Trial): ReadonlyMap<string, Springs> =>
  new Map(
    rounds.flatMap(({ readings }) =>
      readings.flatMap(({ id, body: { shows } }) =>
        shows.kind === 'peak-lift' && shows.springs ? [[id, shows.springs] as const] : [],
      ),
    ),
  );

const samePeaks = remember<Trial, readonly Peak[]>();

/** The readings of a trial that were taken at the peak of a lobe. */
const peaksOf = (trial: Trial): readonly Peak[] =>
  samePeaks(trial, [], () =>
    trial.rounds.flatMap(({ readings }) =>
      readings.flatMap(({ body }) => (body.shows.kind === 'peak-lift' ? [{ ...body, shows: body.shows }] : [])),
    ),
  );

/**
 * Every lift that was read at a valve of one kind, against theory: lobe × ratio. A lash less is no loss.
 * @returns by cylinder; empty where lobe or ratio is not known, or no lift was read at a valve.
 * Source: what grows with the spring bends, what does not is ratio, lash or geometry; common practice, no source.
 */
export function liftTheory(build: Build, card: CompletedCard, valve: Valve): readonly TheoryFinding[] {
  const ratio = statedRatio(build, card, valve);
  const own = build.trials.flatMap((trial) => peaksOf(trial).filter((each) => each.valve === valve));
  const atValve = own.filter(({ sitsOn }) => sitsOn === 'valve');
  if (ratio === null || atValve.length === 0) return [];
  const lash = lashHere(build, valve);
  return [...new Set(atValve.map(({ cylinder }) => cylinder))]
    .sort((a, b) => a - b)
    .flatMap((cylinder): TheoryFinding[] => {
      const lobe =
        own.findLast((each) => each.cylinder === cylinder && each.sitsOn !== 'valve')?.shows.lift ??
        card[valve].lobeLift;
      if (lobe === null) return [];
      const under = (springs: Springs | undefined): number | null =>
        atValve.findLast((each) => each.cylinder === cylinder && each.shows.springs === springs)?.shows.lift ?? null;
      return [named(cylinder, lobe * ratio, lash, under('checking'), under('valve'), under(undefined))];
    });
}

function named(
  cylinder: number,
  theory: number,
  lash: number,
  checking: number | null,
  running: number | null,
  unsaid: number | null,
): TheoryFinding {
  const common = { cylinder, theory, checking, running, unsaid };
  const surely = READ + OF_RATIO * theory;
  const seen = checking ?? running ?? unsaid ?? theory;
  const lost = theory - seen;
  const bends = checking !== null && running !== null ? checking - running : null;
  if (lost < -surely) return { ...common, lost, bends, names: 'above' };
  // Nobody wrote down whether it was read with its lash or without: that much is no loss.
  const isLost = lost > surely + lash;
  if (bends === null)
    return { ...common, lost, bends, names: !isLost ? 'nothing' : checking !== null ? 'geometry' : 'unsaid' };
  const isBent = bends > READ;
  return {
    ...common,
    lost,
    bends,
    names: isLost && isBent ? 'both' : isLost ? 'geometry' : isBent ? 'deflection' : 'nothing',
  };
}
