import { checkEntry } from '../../record/check-entry';
import type { BodyOf, Described } from '../../record/entry';
import { readBuildFile } from '../../record/read-file';
import { readingAt } from '../../crank/wheel';
import { fold } from '../../record/fold';
import { findAll } from '../find-all';
import { book, id } from '../../testing/book';

/** Readings as only a file, or an engine that was corrected later, can hold them: each is named, and none makes a verdict. */
describe('readings that make no whole', () => {
  const ready = () => {
    const job = book();
    const setting = job.proved();
    job.card();
    return { job, setting };
  };
  const troubleOf = (job: ReturnType<typeof book>) => job.report().trials[0]?.rounds[0]?.problem;
  const reading = (
    setting: string,
    round: string,
    more: Partial<BodyOf<'reading.taken'>>,
  ): BodyOf<'reading.taken'> => ({
    setting,
    trial: '',
    round,
    cylinder: 1,
    valve: 'intake',
    sitsOn: 'lifter',
    shows: { kind: 'below-peak', flank: 'opening', drop: 1.27 },
    approach: 'forward',
    wheel: { ring: '0-180', shows: 64, side: 'after' },
    ...more,
  });

  test('a cylinder that the engine does not have', () => {
    const { job, setting } = ready();
    job.write('reading.taken', { ...reading(setting, id(), { cylinder: 9 }), trial: job.trial });
    expect(troubleOf(job)?.message).toBe('It was read at cylinder 9, and the engine has 6.');
    expect(job.report().read.open).toEqual([]);
  });

  test('one side at cylinder 3 and the other at cylinder 1 is no pair, and no tooth out', () => {
    const { job, setting } = ready();
    const round = id();
    job.write('reading.taken', { ...reading(setting, round, { cylinder: 3 }), trial: job.trial });
    job.write('reading.taken', {
      ...reading(setting, round, {
        shows: { kind: 'below-peak', flank: 'closing', drop: 1.27 },
        wheel: { ring: '0-180', shows: 150, side: 'after' },
      }),
      trial: job.trial,
    });
    expect(troubleOf(job)?.message).toBe('The two sides were read at different cylinders, 3 and 1.');
    expect(job.report().verdict).toMatchObject({ kind: 'waiting', delta: null });
    expect(job.report().verdict.action).toMatch(/^The two sides were read at different cylinders/);
  });

  test('a peak lift under events says what it is and where it belongs, and asks for no other side', () => {
    const { job, setting } = ready();
    job.round('events', 'intake', [{ shows: { kind: 'peak-lift', lift: 8.3 } }], { setting });
    expect(troubleOf(job)).toEqual({
      message: 'A peak lift was recorded under “Opening and closing at a height”, which is not read that way.',
      remedy: 'Undo it, and read it again under “Lift: is it the right cam?”.',
    });
    expect(job.report().read).toMatchObject({ open: [], heights: [] });
  });

  test('beside a reading of the method, the foreign one is set aside and its figure is not taken for the height', () => {
    const { job, setting } = ready();
    job.round(
      'events',
      'intake',
      [
        { shows: { kind: 'peak-lift', lift: 8.3 } },
        { shows: { kind: 'above-base', flank: 'opening', lift: 1.27 }, at: -21 },
      ],
      { setting },
    );
    expect(troubleOf(job)).toBeNull();
    expect(job.report().read.open).toMatchObject([{ height: 1.27, slot: 1 }]);
  });

  test('a ring that the wheel does not have is named, and its readings still count', () => {
    const { job, setting } = ready();
    const round = id();
    const quadrant = { ring: '0-90', shows: 64, side: 'after-tdc' } as const;
    job.write('reading.taken', { ...reading(setting, round, { wheel: quadrant }), trial: job.trial });
    job.reading(setting, round, 'closing', 150);
    expect(job.report().problems).toMatchObject([
      { message: 'A reading was taken on a ring 0–90, which the wheel as it is described does not have.' },
    ]);
    expect(job.report().trials[0]?.rounds[0]?.centreline).toBe(107);
    const [first] = job.entries;
    if (first?.kind !== 'build.described') throw new Error('a book opens with its engine');
    const described = (rings: Described['rings']): string =>
      job.write('build.described', { ...first.body, replaces: first.id, rings });
    described([{ ring: '0-90' }]);
    expect(job.report().problems).toEqual([]);
    expect(job.report().zero.rings.map(({ ring }) => ring)).toEqual(['0-180', '0-90']);
    described([{ ring: '0-180' }]);
    expect(checkEntry(job.entries.at(-1))).toBe('body.rings[0]: the wheel has its ring 0–180 twice');
  });

  test('a wheel with two rings is suspected of the four marks only where that ring was read', () => {
    const quadrants = (ring: '0-180' | '0-90') => {
      const { job, setting } = ready();
      const [first] = job.entries;
      if (first?.kind !== 'build.described') throw new Error('a book opens with its engine');
      job.write('build.described', { ...first.body, replaces: first.id, rings: [{ ring: '0-90' }] });
      const round = id();
      for (const [flank, at] of [
        ['opening', 64],
        ['closing', 150],
      ] as const)
        job.write('reading.taken', {
          ...reading(setting, round, {
            shows: { kind: 'below-peak', flank, drop: 1.27 },
            wheel: readingAt({ ring }, at),
          }),
          trial: job.trial,
        });
      const build = fold(job.entries);
      return build && findAll(build).trial?.banks[0]?.evidence.quadrants;
    };
    expect(quadrants('0-180')).toBe(false);
    expect(quadrants('0-90')).toBe(true);
  });

  test('TDC found at a cylinder that there is not proves nothing', () => {
    const job = book();
    const zero = job.write('zero.begun', { after: job.zero, method: 'positive-stop', cylinder: 9 });
    const pass = id();
    for (const [side, shows] of [
      ['before', 20],
      ['after', 24],
    ] as const)
      job.write('zero.reading', { zero, setting: null, pass, side, wheel: { ring: '0-180', shows, side } });
    expect(job.report().zero.passes[0]?.problem?.message).toBe('It was read at cylinder 9, and the engine has 6.');
    expect(job.report().zero.state).not.toBe('proved');
  });

  test('a lift at TDC at the valve without the ratio is compared with nothing, and says so in one voice', () => {
    const tdcLift = (engineKnowsRatio: boolean) => {
      const job = book();
      const setting = job.proved();
      const liftAtTdc = [
        { centreline: 106, lift: 2.9 },
        { centreline: 110, lift: 2.5 },
      ];
      job.write('card.entered', {
        replaces: null,
        intake: { centreline: 107, liftAtTdc, ...(engineKnowsRatio ? { ratio: 1.5 } : {}) },
      });
      job.round('lift-at-tdc', 'intake', [{ shows: { kind: 'tdc-lift', lift: 4.2 }, at: 0 }], {
        setting,
        sitsOn: 'valve',
      });
      const { verdict, trials } = job.report();
      return { verdict, view: trials[0]?.views[0] };
    };
    const { view, verdict } = tdcLift(false);
    expect(view).toMatchObject({ against: null, delta: null });
    expect(view?.remark).toMatch(/without the rocker ratio/);
    expect(verdict.action).toBe(view?.remark);
    expect(tdcLift(true).view?.against).toMatch(/^0.110 in/);
  });
});

describe('a valve pushed down by its adjuster', () => {
  const pushed = (one: number, other: number | undefined) => {
    const job = book();
    const zero = job.write('zero.begun', { after: job.zero, method: 'pushed-valve', cylinder: 1 });
    const pass = id();
    for (const [side, figure] of [
      ['before', one],
      ['after', other],
    ] as const)
      job.write('zero.reading', {
        zero,
        setting: null,
        pass,
        side,
        indicator: 0.127,
        ...(figure === undefined ? {} : { pushed: figure }),
        wheel: { ring: '0-180', shows: 20, side },
      });
    return job.report();
  };
  test('its adjuster has to come back to its figure', () => {
    expect(pushed(5.08, 5.1).zero.passes[0]?.problem).toBeNull();
    expect(pushed(5.08, 5.12).zero.passes[0]?.problem?.message).toBe(
      'The valve was not pushed down alike: 0.200 in and 0.2016 in.',
    );
    expect(pushed(5.08, undefined).zero.passes[0]?.problem?.message).toMatch(/pushed down is missing/);
  });
  test('its lash is an open point until it is set', () => {
    const job = book();
    job.write('zero.begun', { after: job.zero, method: 'pushed-valve', cylinder: 1 });
    const LASH = 'The valve that TDC was found with has lost its lash: set it again.';
    expect(job.report().sign.open).toContain(LASH);
    job.write('sign.checked', { replaces: null, check: 'lash', result: 'done' });
    expect(job.report().sign.open).not.toContain(LASH);
  });
});

test('on an engine that must not be turned back the second side is read going on over the top', () => {
  const job = book();
  const said = (): string => {
    const zero = job.write('zero.begun', { after: job.report().zero.id, method: 'dropped-valve', cylinder: 1 });
    const wheel = { ring: '0-180', shows: 20, side: 'before' } as const;
    job.write('zero.reading', { zero, setting: null, pass: id(), side: 'before', indicator: 0.127, wheel });
    return job.report().zero.sentence;
  };
  expect(said()).toMatch(/^From well after the top, turn it back/);
  job.stands({ head: 'on', plugHole: false, drive: 'belt', oneWay: true });
  expect(said()).toMatch(/^Go on over the top, holding the valve down/);
});

describe('two first cards', () => {
  test('are named until the card is saved again; then one is left', () => {
    const job = book();
    const first = job.card(104);
    const corrected = job.write('card.entered', { replaces: first, intake: { centreline: 105 } });
    expect(job.report().problems).toEqual([]);
    const second = job.write('card.entered', { replaces: null, intake: { centreline: 109 } });
    const { problems, card } = job.report();
    expect(card).toMatchObject({ entry: second, intakeCentreline: 109, others: [first, corrected] });
    expect(problems[0]?.message).toBe(
      'More than one card was entered, and none of them replaces the others: the one entered last counts.',
    );
    job.write('card.entered', { replaces: second, intake: { centreline: 108 } });
    for (const other of card.others) job.write('entry.voided', { voids: other });
    expect(job.report()).toMatchObject({ problems: [], card: { intakeCentreline: 108, others: [] } });
  });
});

test('a name that stands twice in an object of a file is refused, with its place', () => {
  const found = readBuildFile('{\n  "format": "a",\n  "entries": [{ "shows": 1, "shows": 2 }],\n  "shows": 3\n}');
  expect(found).toEqual({
    ok: false,
    field: '',
    message: 'line 3, column 29: “shows” stands twice in one place; only one of the two can be meant',
  });
});

test('a lifter made solid is an open point until the tools are out', () => {
  const job = book();
  const SOLID = 'A lifter was made solid to be measured on: it must come out again, or be made to work again.';
  job.stands({ lifter: 'hydraulic' });
  expect(job.report().sign.open).not.toContain(SOLID);
  job.write('prepare.checked', { replaces: null, check: 'lifter-solid', result: 'done' });
  expect(job.report().sign.open).toContain(SOLID);
  job.write('sign.checked', { replaces: null, check: 'tools-out', result: 'done' });
  expect(job.report().sign.open).not.toContain(SOLID);
});
