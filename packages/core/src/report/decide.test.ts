import { book } from '../testing/book';
import { lobeAt } from '../cam/lobe';
import { readingAt } from '../crank/wheel';
import { inches } from '../units/length';
import { drawingOf } from './drawing';
import type { BodyOf } from '../record/entry';
import type { Report } from './report';

type Shows = BodyOf<'reading.taken'>['shows'];
type Job = ReturnType<typeof book>;
const HALF = inches('0.050');
const below = (flank: 'opening' | 'closing'): Shows => ({ kind: 'below-peak', flank, drop: HALF });
const above = (flank: 'opening' | 'closing'): Shows => ({ kind: 'above-base', flank, lift: HALF });
const LINES = {
  intake: { height: HALF, at: 'lobe', opens: 3, closes: 37 },
  exhaust: { height: HALF, at: 'lobe', opens: 45, closes: 3 },
} as const;

/** A proved zero and a card with centrelines, lifts and events at 0.050 in. */
function ready(more: { twin?: boolean; card?: object } = {}): Job & { setting: string } {
  const job = book();
  if (more.twin) {
    const [first] = job.entries;
    const described = first?.body as BodyOf<'build.described'>;
    job.write('build.described', {
      ...described,
      replaces: first?.id ?? null,
      engine: { ...described.engine, cams: 'twin' },
    });
  }
  const setting = job.proved();
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: 8.382, timing: [LINES.intake] },
    exhaust: { centreline: 111, lobeLift: 8.382, timing: [LINES.exhaust] },
    ...more.card,
  });
  return { ...job, setting };
}
const pairOf = (job: Job & { setting: string }, valve: 'intake' | 'exhaust', opening: number, closing: number): void =>
  void job.round(
    'centreline',
    valve,
    [
      { shows: below('opening'), at: opening },
      { shows: below('closing'), at: closing },
    ],
    job,
  );
const eventsOf = (
  job: Job & { setting: string },
  valve: 'intake' | 'exhaust',
  opening: number,
  closing: number,
): void =>
  void job.round(
    'events',
    valve,
    [
      { shows: above('opening'), at: opening },
      { shows: above('closing'), at: closing },
    ],
    job,
  );
const lift = (job: Job, valve: 'intake' | 'exhaust', mm: number, more = {}): void =>
  void job.round('identity', valve, [{ shows: { kind: 'peak-lift', lift: mm } }], more);
const weights = (report: Report): number =>
  report.trials[0]?.views.reduce((sum, { weight }) => sum + (weight ?? 0), 0) ?? 0;

test('all readings are weighed together: better known than any view alone, and the shares make one', () => {
  const job = ready();
  pairOf(job, 'intake', 66, 153);
  eventsOf(job, 'intake', 0, 219);
  pairOf(job, 'exhaust', -152.5, -64.5);
  const report = job.report();
  expect(report.verdict).toMatchObject({ kind: 'move', delta: expect.closeTo(-2.4, 0) });
  // The lift at TDC, without lifts of the card, weighs next to nothing.
  expect(report.verdict.why).toMatch(/^From 2 measurements \(the more exact count more\), against ICL 107°/);
  for (const { delta, deltaExpanded } of report.trials[0]?.views ?? [])
    if (delta !== null) expect(deltaExpanded ?? 0).toBeGreaterThan(report.verdict.expanded ?? 0);
  expect(weights(report)).toBeCloseTo(1, 6);
});

test('the rule of the shop: its method alone speaks; the others are shown and have no say', () => {
  const job = ready();
  pairOf(job, 'intake', 66, 153);
  eventsOf(job, 'intake', -1, 219.5);
  job.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1, judgedBy: 'events' });
  const { trials, verdict } = job.report();
  expect(trials[0]?.cams[0]?.rule).toBe('events');
  expect(verdict.delta).toBeCloseTo(-2.25, 1);
  expect(verdict.why).toMatch(/^By the rule of the shop from the events/);
  expect(trials[0]?.views.find(({ method }) => method === 'centreline')?.weight).toBeNull();
});

test('a centreline of one’s own owes nothing to the rounding of the card', () => {
  const job = ready();
  pairOf(job, 'intake', 66, 153);
  const byCard = job.report().verdict.expanded ?? 0;
  job.write('target.set', { replaces: null, target: { kind: 'centreline', centreline: 106 }, limit: 1 });
  const { verdict } = job.report();
  expect(verdict.delta).toBeCloseTo(-3.5, 3);
  expect(verdict.expanded ?? 0).toBeLessThan(0.7 * byCard);
});

describe('what is short of enough', () => {
  test('one reading only: no verdict, and what is missing', () => {
    const job = ready();
    job.reading(job.setting, 'r', 'opening', 66);
    expect(job.report().verdict).toMatchObject({
      kind: 'waiting',
      headline: expect.stringMatching(/one side of the nose/),
    });
  });

  test('the exhaust alone says where a single cam sits; the grinding of the lobes is in its interval', () => {
    const job = ready();
    pairOf(job, 'exhaust', -152.5, -64.5);
    const { verdict } = job.report();
    expect(verdict).toMatchObject({ kind: 'move', delta: expect.closeTo(-2.5, 1) });
    expect(verdict.expanded ?? 0).toBeGreaterThan(0.9);
    expect(drawingOf(job.entries, job.trial, 'intake')?.expanded).toBeCloseTo(verdict.expanded ?? 0, 9);
  });

  test('one cam of a twin only: its own verdict, none for the other', () => {
    const job = ready({ twin: true });
    pairOf(job, 'intake', 66, 153);
    const { trials, verdict } = job.report();
    expect(trials[0]?.cams.map(({ cam }) => cam)).toEqual(['intake']);
    expect(verdict.headline).toMatch(/^The intake cam sits 2\.5° late/);
  });

  test('all readings undone: nothing is left to judge', () => {
    const job = ready();
    const round = job.round(
      'centreline',
      'intake',
      [
        { shows: below('opening'), at: 66 },
        { shows: below('closing'), at: 153 },
      ],
      job,
    );
    for (const voids of round) job.write('entry.voided', { voids });
    expect(job.report().verdict).toMatchObject({ kind: 'waiting', delta: null });
    expect(job.report().trials[0]).toMatchObject({ cams: [], faults: [] });
  });

  test('a card that contradicts itself, kept on purpose: judged from what it does not dispute, and said', () => {
    // 3 + 180 + 37 is 220, not 230: the events are disputed, the centreline is not.
    const job = ready({
      card: { intake: { centreline: 107, lobeLift: 8.382, timing: [{ ...LINES.intake, duration: 230 }] } },
    });
    pairOf(job, 'intake', 66, 153);
    const { verdict } = job.report();
    expect(verdict).toMatchObject({ kind: 'move', delta: expect.closeTo(-2.5, 3) });
    expect(verdict.why).toMatch(/what the card contradicts itself about is left out/);
  });

  // The events are centred on 107, the centreline is printed as 102½: a lobe that leans so far, or a misprint.
  describe('a card whose centreline and events lie further apart than lobes usually lean', () => {
    const torn = () => ready({ card: { intake: { centreline: 102.5, lobeLift: 8.382, timing: [LINES.intake] } } });

    test('like is compared with like, and the other way is asked for before the cam is moved', () => {
      const byEvents = torn();
      eventsOf(byEvents, 'intake', -0.5, 219.5);
      const byCentreline = torn();
      pairOf(byCentreline, 'intake', 61.5, 148.5);
      for (const job of [byEvents, byCentreline]) {
        const { verdict } = job.report();
        expect(verdict).toMatchObject({
          kind: 'move',
          delta: expect.closeTo(-2.5, 1),
          first: ['read-both-ways', 'closing-check'],
        });
        expect(verdict.action).toMatch(
          /^First read both the centreline and the events of the intake lobe, and make the closing check\./,
        );
        expect(verdict.beside.join(' ')).toMatch(/do not belong together\. Like is compared with like here/);
        expect(verdict.why).not.toMatch(/left out/);
        const notes = job.report().sheet.flatMap(({ rows }) => rows.flatMap(({ note }) => note ?? []));
        expect(notes.filter((note) => note.startsWith('disputed'))).toEqual(
          Array(3).fill('disputed: compared with its like alone'),
        );
      }
    });

    test('readings of both ways bear it out: the lobe leans so, and nothing is left to ask', () => {
      const job = torn();
      eventsOf(job, 'intake', -0.5, 219.5);
      pairOf(job, 'intake', 61.5, 148.5);
      const { verdict, trials } = job.report();
      expect(verdict).toMatchObject({ kind: 'move', delta: expect.closeTo(-2.5, 1), first: ['closing-check'] });
      expect(verdict.beside.join(' ')).not.toMatch(/belong together/);
      expect(trials[0]?.faults).toEqual([]);
    });

    test('readings of both ways do not: the card or a reading is wrong, and nobody is accused', () => {
      const job = torn();
      eventsOf(job, 'intake', -0.5, 219.5);
      pairOf(job, 'intake', 66, 153);
      const { verdict, trials } = job.report();
      expect(verdict).toMatchObject({
        kind: 'waiting',
        action: expect.stringMatching(
          /^Read both ways, the intake does not lean as .*\. Compare what is entered at Card with the card itself, and read/,
        ),
      });
      expect(trials[0]?.faults).toEqual([]);
    });

    test('where the card says that its centreline is the middle of its events, no lean explains it', () => {
      const job = ready({
        card: {
          centrelineMeans: 'events',
          intake: { centreline: 102.5, lobeLift: 8.382, timing: [LINES.intake] },
          exhaust: undefined,
        },
      });
      pairOf(job, 'intake', 61.5, 148.5);
      expect(job.report().verdict).toMatchObject({
        kind: 'waiting',
        action: expect.stringMatching(/contradicts itself/),
      });
    });
  });

  test('a figure of the card that is wrong: spoken of beside what the readings may be, and by itself when they repeat; named with how far it is out', () => {
    const job = ready({ card: { intake: { centreline: 109.5, lobeLift: 8.382, timing: [LINES.intake] } } });
    const both = (): void => {
      pairOf(job, 'intake', 63.5, 150.5);
      eventsOf(job, 'intake', -3, 217);
    };
    both();
    const faults = (): readonly string[] => job.report().trials[0]?.faults.map(({ fault }) => fault) ?? [];
    expect(faults()).toContain('card-figure');
    expect(faults().length).toBeGreaterThan(1);
    both();
    expect(faults()).toEqual(['card-figure']);
    expect(job.report().verdict).toMatchObject({
      kind: 'do-not-move',
      headline: expect.stringMatching(
        /most likely the card’s ICL is wrong by about 2\.5°: misprinted, or typed wrong\.$/,
      ),
      action: expect.stringMatching(/^Compare what is entered at Card with the card itself/),
    });
    // Left out, what remains speaks.
    job.write('card.entered', { replaces: null, intake: { lobeLift: 8.382, timing: [LINES.intake] } });
    expect(job.report().verdict).toMatchObject({ kind: 'leave', delta: expect.closeTo(0, 1) });
  });

  test('the centreline on a fallen zero, the lift on a proved one: still not proved', () => {
    const job = ready();
    pairOf(job, 'intake', 66, 153);
    job.write('zero.disturbed', { setting: job.setting, what: 'wheel', keeps: [] });
    const found = job.set(job.setting);
    job.pass(found, -23.75, 23.75);
    lift(job, 'intake', 8.37, { setting: found });
    expect(job.report().verdict).toMatchObject({
      kind: 'do-not-move',
      headline: 'Do not move it yet: TDC is not proved.',
    });
  });

  test('a target that no drive reaches is told from a cam that is out', () => {
    const job = ready();
    job.write('target.set', { replaces: null, target: { kind: 'centreline', centreline: 70 }, limit: 1 });
    pairOf(job, 'intake', 63.5, 150.5);
    expect(job.report().verdict).toMatchObject({
      kind: 'do-not-move',
      headline: expect.stringMatching(/its target is 37\.0° away, and no timing set reaches that far/),
    });
  });

  test('too coarse to say which way: the reading is named that would narrow it most', () => {
    const job = book();
    // Without a wheel: TDC is where the piston just stops.
    job.write('card.entered', {
      replaces: null,
      intake: {
        centreline: 106,
        lobeLift: 8.4,
        liftAtTdc: [
          { centreline: 106, lift: inches('0.115') },
          { centreline: 110, lift: inches('0.099') },
        ],
      },
    });
    job.round('lift-at-tdc', 'intake', [{ shows: { kind: 'tdc-lift', lift: inches('0.110') } }]);
    const { verdict } = job.report();
    expect(verdict.kind).toBe('measure-again');
    expect(verdict.headline).toMatch(/1\.3° late, retarded, but only known to ±/);
  });
});

describe('a decision is kept only as long as all that it was made from', () => {
  test('a point left out of a trace, a later proof, another limit: each is decided anew', () => {
    const job = book();
    const setting = job.proved();
    job.write('card.entered', { replaces: null, intake: { centreline: 107, lobeLift: 8.382 } });
    const lobe = { peak: 8.382, nose: 109, half: 152, power: 3, lean: 0 };
    const points = Array.from({ length: 181 }, (_, i): [number, number] => [
      2 * i - 80,
      lobeAt(lobe, 2 * i - 80).lift + (i === 80 ? 0.4 : 0),
    ]);
    const trace = job.write('trace.recorded', {
      setting,
      trial: job.trial,
      cylinder: 1,
      valve: 'intake',
      sitsOn: 'lifter',
      approach: 'forward',
      source: 'file',
      counted: 'from-zero',
      points,
    });
    // Off its neighbours, it does not pull the curve, whether somebody has left it out yet or not.
    expect(job.report().verdict.delta).toBeCloseTo(-2, 1);
    job.write('trace.points-voided', { trace, points: [80] });
    expect(job.report().verdict.delta).toBeCloseTo(-2, 1);
    // Nearly all of the closing side left out, and taken in again.
    const cut = job.write('trace.points-voided', { trace, points: Array.from({ length: 80 }, (_, i) => 97 + i) });
    expect(job.report().verdict.delta).toBeNull();
    job.write('entry.voided', { voids: cut });
    expect(job.report().verdict.delta).toBeCloseTo(-2, 1);
    // Proved a quarter later: the mean of the two proofs is an eighth.
    job.pass(setting, -23.5, 24);
    expect(job.report().verdict.delta).toBeCloseTo(-1.875, 1);
    job.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 3 });
    expect(job.report().verdict.kind).toBe('leave');
  });
});

describe('what went wrong', () => {
  test('healthy readings accuse nobody', () => {
    const job = ready();
    pairOf(job, 'intake', 66, 153);
    eventsOf(job, 'intake', 0, 219);
    lift(job, 'intake', 8.37);
    expect(job.report().trials[0]?.faults).toEqual([]);
  });

  test('a wheel read on its wrong side is left out of the verdict, and what happened is said with the pair', () => {
    const job = ready();
    eventsOf(job, 'intake', -1, 219.5);
    // 153 after, written as 153 before.
    pairOf(job, 'intake', 66, -153);
    const report = job.report();
    expect(report.trials[0]?.faults[0]).toMatchObject({
      fault: 'wrong-side',
      words: expect.stringMatching(/0\.050 in after peak/),
    });
  });

  test('a wheel is cleared by one contact that comes again after the readings', () => {
    const job = ready();
    pairOf(job, 'intake', 63.5, 150.5);
    pairOf(job, 'exhaust', -161, -73);
    const faults = (): string[] => job.report().trials[0]?.faults.map(({ fault }) => fault) ?? [];
    expect(faults()).toContain('wheel-slipped');
    expect(job.report().read.closing).toMatchObject({ state: 'due', side: 'before', figure: null });
    job.contact(job.setting, 'again', 'before', -23.75);
    expect(job.report().read.closing.state).toBe('same');
    expect(JSON.stringify(job.report().sheet)).toMatch(/turning forward, closing check/);
    expect(faults()).toContain('lsa-off');
    expect(faults()).not.toContain('wheel-slipped');
  });

  test('a contact that does not come again: no verdict leans on the readings, whatever they say; and the next reading asks anew', () => {
    const job = ready();
    pairOf(job, 'intake', 64, 151);
    expect(job.report().verdict).toMatchObject({
      kind: 'leave',
      beside: [expect.stringMatching(/if nothing has moved since TDC/), expect.any(String), expect.any(String)],
    });
    job.contact(job.setting, 'again', 'before', -20.75);
    expect(job.report()).toMatchObject({
      read: { closing: { state: 'moved', by: 3 } },
      verdict: {
        kind: 'do-not-move',
        headline: 'Do not move the cam yet: the wheel or the pointer has moved by 3.0° since TDC was proved.',
      },
    });
    pairOf(job, 'intake', 64, 151);
    expect(job.report().read.closing.state).toBe('due');
  });

  test('what nobody has looked at again is an open point of the signing, until somebody has', () => {
    const job = ready();
    pairOf(job, 'intake', 64, 151);
    expect(job.report().verdict.kind).toBe('leave');
    const open = (): string[] => job.report().sign.open.filter((words) => /closing check|single pair/.test(words));
    expect(open()).toEqual([
      expect.stringMatching(/closing check was not made/),
      expect.stringMatching(/single pair of readings/),
    ]);
    job.contact(job.setting, 'again', 'before', -23.75);
    expect(open()).toEqual([expect.stringMatching(/single pair/)]);
    pairOf(job, 'intake', 64, 151);
    job.contact(job.setting, 'again', 'before', -23.75);
    expect(open()).toEqual([]);
  });

  test('another cam: told by its events and its lift', () => {
    const job = ready();
    eventsOf(job, 'intake', -11, 225);
    lift(job, 'intake', 9.14);
    expect(job.report().verdict).toMatchObject({ kind: 'wrong-cam', move: 0 });
  });

  test('lifts read behind the rocker are not another cam', () => {
    const job = ready();
    lift(job, 'intake', 8.382 * 1.5);
    eventsOf(job, 'intake', -8, 224);
    expect(job.report().trials[0]?.faults[0]?.fault).toBe('at-valve');
  });
});

describe('years later', () => {
  const again = (job: Job & { setting: string }, why: 'moved' | 'checked', later: number, liftNow: number): Report => {
    const trial = job.write('trial.begun', { after: job.trial, why });
    job.round(
      'centreline',
      'intake',
      [
        { shows: below('opening'), at: 63.5 + later },
        { shows: below('closing'), at: 150.5 + later },
      ],
      { ...job, trial },
    );
    lift(job, 'intake', liftNow, { trial });
    return job.report();
  };
  const begun = (): Job & { setting: string } => {
    const job = ready();
    pairOf(job, 'intake', 63.5, 150.5);
    lift(job, 'intake', 8.37);
    return job;
  };

  test('the same, within what both measurements know', () => {
    const { wear } = again(begun(), 'checked', 0.25, 8.365);
    expect(wear.map(({ what, changed }) => [what, changed])).toEqual([
      ['lift', false],
      ['phase', false],
    ]);
  });

  test('a worn lobe and a stretched drive are told, with their sizes', () => {
    const report = again(begun(), 'checked', 3, 8.1);
    expect(report.wear.map(({ words }) => words).join(' ')).toMatch(
      /intake lobe lifts 0\.011 in less than in trial 1 .*: worn.*sits 3\.0° later, retarded, than in trial 1 .*stretched chain/,
    );
    expect(report.sheet.find(({ title }) => title === 'Since it was measured before')?.rows).toHaveLength(2);
  });

  test('after a move only the lobes are compared', () =>
    expect(again(begun(), 'moved', 3, 8.37).wear.map(({ what }) => what)).toEqual(['lift']));
});

test('the drawing of a trial’s errors is there where a verdict is', () => {
  const job = ready();
  expect(drawingOf(job.entries, job.trial, 'intake')).toBeNull();
  pairOf(job, 'intake', 66, 153);
  const asked = drawingOf(job.entries, job.trial, 'intake');
  expect(asked?.expanded).toBeCloseTo(job.report().verdict.expanded ?? 0, 9);
  expect(drawingOf(job.entries, 'nobody', 'intake')).toBeNull();
  expect(drawingOf([], job.trial, 'intake')).toBeNull();
});

test('a ring that is read from both dead centres may be read from the wrong one', () => {
  const job = book({ ring: '0-90' });
  const setting = job.proved();
  job.write('card.entered', {
    replaces: null,
    intake: { centreline: 107, lobeLift: 8.382, timing: [LINES.intake] },
  });
  eventsOf({ ...job, setting }, 'intake', -1, 219.5);
  // 66 after TDC was read as 66 before BDC.
  const round = job.round(
    'centreline',
    'intake',
    [
      { shows: below('opening'), at: 66 },
      { shows: below('closing'), at: 153 },
    ],
    {
      setting,
    },
  );
  const [opening] = job.entries.filter(({ id }) => id === round[0]);
  if (opening?.kind !== 'reading.taken') throw new Error('it was taken');
  opening.body.wheel = readingAt({ ring: '0-90' }, 66 + 180);
  expect(job.report().trials[0]?.faults[0]?.fault).toBe('dead-centre');
});
