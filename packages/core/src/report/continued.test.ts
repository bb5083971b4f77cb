import { FAMILIES } from '../judgement/ground-lobe';
import { doJob } from '../judgement/job';
import { SCENARIOS } from '../judgement/what-is-done';
import type { BodyOf, Entry, EntryKind } from '../record/entry';
import { type Random, makeRandom } from '../statistics/random';
import { derive } from './report';

/** A logbook goes on from what was worked out before; one that was just opened begins anew. Both must say the same of it, whatever is written next. */

/** What a builder may do to a job that was read: anything that changes what earlier readings say, and more of them. */
function doMore(random: Random, job: readonly Entry[]): Entry[] {
  const entries = [...job];
  const oneOf = <T>(all: readonly T[]): T | undefined => all[Math.floor(random.even() * all.length)];
  const ofKind = <K extends EntryKind>(kind: K) =>
    entries.filter((entry): entry is Extract<Entry, { kind: K }> => entry.kind === kind);
  let count = 0;
  const write = <K extends EntryKind>(kind: K, body: BodyOf<K> | undefined): void => {
    const [first] = entries;
    if (!body || !first) return;
    const id = `f0000000-0000-4000-8000-${String((count += 1)).padStart(12, '0')}`;
    entries.push({ ...first, id, kind, body } as Entry);
  };
  const last = <K extends EntryKind>(kind: K) => ofKind(kind).at(-1);
  const readAgain = (into: string | undefined): void => {
    const like = oneOf(ofKind('reading.taken'))?.body;
    if (!like || into === undefined) return;
    const round = `f1000000-0000-4000-8000-${String(count).padStart(12, '0')}`;
    const pair = ofKind('reading.taken').filter(({ body }) => body.round === like.round && body.trial === like.trial);
    // Now and then somebody reads more finely than before.
    const more = random.even() < 0.3 ? 0.25 : 0;
    for (const { body } of pair) {
      const wheel =
        body.wheel && body.wheel.ring !== 'rim' ? { ...body.wheel, shows: body.wheel.shows + more } : body.wheel;
      write('reading.taken', { ...body, trial: into, round, wheel });
    }
  };
  const deeds: readonly (() => void)[] = [
    () => write('entry.voided', { voids: oneOf(entries.slice(1))?.id ?? '' }),
    () => write('entry.voided', { voids: last('entry.voided')?.id ?? '' }),
    () => {
      const before = last('build.described');
      const units = before?.body.units === 'in' ? 'mm' : 'in';
      write('build.described', before && { ...before.body, replaces: before.id, units });
    },
    () => {
      const before = last('card.entered');
      const { intake } = before?.body ?? {};
      const centreline = intake?.centreline === undefined ? 104 : intake.centreline + 1;
      write('card.entered', { ...before?.body, replaces: before?.id ?? null, intake: { ...intake, centreline } });
    },
    () =>
      write('target.set', {
        replaces: last('target.set')?.id ?? null,
        target: { kind: 'ahead-of-card', advance: Math.round(random.within(4)) },
        limit: 0.5 + Math.round(2 * random.even()) / 2,
      }),
    () => {
      const setting = last('zero.set')?.id;
      const keeps = ofKind('reading.taken').flatMap(({ id }) => (random.even() < 0.5 ? [id] : []));
      write('zero.disturbed', setting === undefined ? undefined : { setting, what: 'wheel', keeps });
    },
    () => {
      const proof = oneOf(ofKind('zero.reading'));
      write('zero.reading', proof?.body);
    },
    () => {
      write('trial.begun', { after: last('trial.begun')?.id ?? null, why: oneOf(['moved', 'checked'] as const) });
      readAgain(last('trial.begun')?.id);
    },
    () => readAgain(last('trial.begun')?.id),
    () => readAgain(ofKind('trial.begun')[0]?.id),
    () => readAgain(oneOf(ofKind('trial.begun'))?.id),
  ];
  for (let deed = 0; deed < 18; deed += 1) oneOf(deeds)?.();
  return entries;
}

test.each(SCENARIOS.map((scenario, at) => [scenario.name, scenario, at] as const))(
  '%s, then anything: every entry more says what it says from the beginning',
  (_name, scenario, at) => {
    for (const seed of [1, 2]) {
      const random = makeRandom(4001 * at + seed);
      const family = FAMILIES[(at + seed) % FAMILIES.length] ?? '3-4-5';
      const entries = doMore(random, doJob(random, scenario, 'nose', 0.5, family).entries);
      for (let until = 1; until <= entries.length; until += 1) {
        const some = entries.slice(0, until);
        const said = derive(some);
        // To begin anew costs the most: of the two logbooks one is compared after every even entry, the other after every odd one.
        if ((until + seed) % 2 === 0) expect([seed, until, said]).toEqual([seed, until, derive(structuredClone(some))]);
      }
      // What was worked out of more entries must not colour what is said of fewer.
      for (let until = entries.length; until > 0; until -= 5) {
        const some = entries.slice(0, until);
        expect([seed, until, derive(some)]).toEqual([seed, until, derive(structuredClone(some))]);
      }
    }
  },
);
