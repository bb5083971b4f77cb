import { hasRing, ringWords } from '../crank/wheel';
import type { Findings } from '../findings/find-all';
import { ringsOf } from '../findings/readings/zero-passes';
import type { EntryOf } from '../record/entry';
import type { Build } from '../record/fold';
import type { Trial } from '../record/parts';
import { remember } from '../record/remember';
import type { Report } from './report-schema';
import type { TroubledGroup } from './left-out';

/** What in the logbook cannot be as it stands, with the entries that say it and what to do. */
export function problemsOf({ build, card, lash }: Findings, troubled: readonly TroubledGroup[]): Report['problems'] {
  return [
    ...card.contradictions.map(({ message, remedy }) => ({
      entries: build.card ? [build.card.id] : [],
      message,
      remedy,
    })),
    ...otherCards(build),
    ...foreignRings(build),
    ...(lash.job?.astray ?? []).map(({ entry, message, remedy }) => ({ entries: [entry], message, remedy })),
    ...troubled,
    ...[...build.unlinked].map(([id, message]) => ({
      entries: [id],
      message,
      remedy: 'It is kept, but nothing is worked out from it.',
    })),
  ];
}

const sameForeign = remember<Trial, readonly EntryOf<'reading.taken'>[]>();

/** Readings on a ring that the wheel, as it is described, does not have. They count: what was read is what stood there. */
function foreignRings({ description, zeros, trials }: Build): Report['problems'] {
  const rings = ringsOf(description.body);
  const ofZeros = zeros.flatMap(({ begun, stages }) =>
    begun.ring ? [] : stages.flatMap(({ passes }) => passes.flatMap(({ before, after }) => [...before, ...after])),
  );
  const isForeign = ({ body: { wheel } }: EntryOf<'zero.reading' | 'reading.taken'>): boolean =>
    wheel !== null && !hasRing(rings, wheel);
  const foreign = [
    ...ofZeros.filter(isForeign),
    ...trials.flatMap((trial) =>
      sameForeign(trial, [description], () => trial.rounds.flatMap(({ readings }) => readings.filter(isForeign))),
    ),
  ];
  const ring = foreign[0]?.body.wheel;
  if (!ring) return [];
  return [
    {
      entries: foreign.map(({ id }) => id),
      message: `${foreign.length === 1 ? 'A reading was' : `${foreign.length} readings were`} taken on a ring ${ringWords(ring)}, which the wheel as it is described does not have.`,
      remedy: 'If the wheel has it, name it with the engine. If not, undo what was misread.',
    },
  ];
}

/** Two first cards: one of them counts, and nobody decided which. */
function otherCards({ card, otherCards: others }: Build): Report['problems'] {
  if (!card || others.length === 0) return [];
  const named = card.body.name === undefined ? 'the one entered last' : `“${card.body.name}”, entered last,`;
  return [
    {
      entries: [card.id, ...others.map(({ id }) => id)],
      message: `More than one card was entered, and none of them replaces the others: ${named} counts.`,
      remedy:
        'Open Card, see that its figures are those of the cam in the engine, and save it: it then replaces the rest.',
    },
  ];
}
