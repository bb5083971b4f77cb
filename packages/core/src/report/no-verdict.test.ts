import { book, id } from '../testing/book';
import type { BodyOf } from '../record/entry';

const CARD: BodyOf<'card.entered'> = { replaces: null, intake: { centreline: 107, lobeLift: 8.382 } };
type Job = ReturnType<typeof book>;

/** What the verdict says while there is none: headline and action. */
function said(job: Job): readonly [string, string] {
  const { kind, headline, action } = job.report().verdict;
  expect(kind).toBe('waiting');
  return [headline, action];
}
const stateOf = (job: Job, station: string): string | undefined =>
  job.report().stations.find((each) => each.station === station)?.state;

describe('before there is a verdict, what is missing is said in the order of the work', () => {
  test('first TDC, then something to compare with, then the cam itself', () => {
    const job = book();
    expect(said(job)).toEqual(['No verdict yet: TDC is not proved.', 'Find it at Zero, and prove it.']);
    expect(['zero', 'card', 'read', 'decide'].map((each) => stateOf(job, each))).toEqual([
      'begun',
      'due',
      'due',
      'due',
    ]);
    const setting = job.proved();
    expect(said(job)[1]).toBe('Enter the card, or set a target of your own.');
    job.write('card.entered', CARD);
    expect(said(job)).toEqual([
      'No verdict yet: the cam has not been measured.',
      'Read the wheel at the same drop before and after peak.',
    ]);
    expect(['zero', 'card', 'read', 'decide'].map((each) => stateOf(job, each))).toEqual([
      'done',
      'done',
      'due',
      'due',
    ]);
    job.reading(setting, id(), 'opening', 64);
    expect(said(job)[0]).toBe('No verdict yet: one side of the nose is missing.');
    expect(stateOf(job, 'read')).toBe('begun');
    job.pair(setting, 64, 150);
    expect(job.report().verdict.kind).not.toBe('waiting');
    expect(stateOf(job, 'read')).toBe('done');
  });

  test('a card without the centreline, and one that contradicts itself, are told apart', () => {
    const bare = book();
    bare.proved();
    bare.write('card.entered', { replaces: null, intake: { lobeLift: 8.382 } });
    expect(said(bare)[1]).toBe('The card gives no intake centreline. Enter it, or set a target of your own.');
    expect(stateOf(bare, 'card')).toBe('begun');
    const torn = book();
    torn.proved();
    // LSA 109 with centrelines of 107 and 115 cannot be: their mean is 111.
    torn.write('card.entered', {
      replaces: null,
      lobeSeparation: 109,
      intake: { centreline: 107 },
      exhaust: { centreline: 115 },
    });
    expect(said(torn)[1]).toBe(
      'The card contradicts itself about the intake centreline. Settle it, or set a target of your own.',
    );
  });

  test('a measurement that cannot be is named with what to do, and fallen ground makes what was done void', () => {
    const job = book();
    const setting = job.proved();
    job.write('card.entered', CARD);
    job.pair(setting, 150, 64);
    expect(said(job)[0]).toBe('No verdict yet: a measurement does not hold.');
    expect(said(job)[1]).toMatch(/exchanged|other side|wrong side/);
    const fallen = book();
    const before = fallen.proved();
    fallen.write('card.entered', CARD);
    fallen.pair(before, 64, 150);
    fallen.write('zero.disturbed', { setting: before, what: 'wheel', keeps: [] });
    expect(['zero', 'read'].map((each) => stateOf(fallen, each))).toEqual(['void', 'void']);
  });
});
