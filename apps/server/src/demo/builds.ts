import type { WheelReading } from '@yosoku/core/crank/wheel';
import type { BodyOf, Entry } from '@yosoku/core/record/entry';
import type { ReadMethodName } from '@yosoku/core/measure/read-methods';
import { inches, millimetres } from '@yosoku/core/units/length';
import { after, before, falling, flanksOf, measuring, pass, rising } from './measuring';
import { type Pen, openLogbook } from './demo-logbook';

const FENNEL_CARD: BodyOf<'card.entered'> = {
  replaces: null,
  name: 'Fennel 254-106',
  intake: {
    centreline: 106,
    lobeLift: inches('0.330'),
    timing: [
      { height: inches('0.050'), at: 'lobe', duration: 214 },
      { height: inches('0.006'), at: 'lobe', duration: 254 },
    ],
  },
  exhaust: {
    centreline: 113,
    lobeLift: inches('0.340'),
    timing: [
      { height: inches('0.050'), at: 'lobe', duration: 222 },
      { height: inches('0.006'), at: 'lobe', duration: 266 },
    ],
  },
  lobeSeparation: 109.5,
};

/** Complete, with a history: 2½° late, moved, measured again, on the card. */
export function kestrelPointSix(pen: Pen): Entry[] {
  const book = openLogbook(pen);
  book.write('build.described', {
    replaces: null,
    name: 'Kestrel Point six',
    engine: {
      cylinders: 6,
      firingOrder: [1, 5, 3, 6, 2, 4],
      rotation: 'clockwise',
      stroke: inches('3.25'),
      rod: inches('5.9'),
    },
    wheel: { ring: '0-180' },
    units: 'in',
    instruments: {
      wheelDiameter: inches('18'),
      graduation: 1,
      pointerGap: inches('0.06'),
      resolution: inches('0.0005'),
    },
  });
  const first = book.write('trial.begun', { after: null });
  book.write('engine.as-it-stands', {
    replaces: null,
    head: 'off',
    plugHole: true,
    wheel: true,
    indicator: true,
    lifter: 'solid',
    drive: 'chain',
  });
  const ticked = ['made-safe', 'turns-freely', 'wheel-tight', 'pointer-rigid', 'turn-from-crank'] as const;
  for (const check of [...ticked, 'one-way-tensioner', 'indicator-in-line', 'trigger-pattern', 'bolt-length'] as const)
    book.write('prepare.checked', { replaces: null, check, result: 'done' });
  book.write('prepare.checked', {
    replaces: null,
    check: 'straight-up',
    result: 'skipped',
    reason: 'Came in on its +4 keyway; left so for the first look.',
  });
  book.write('end-play.measured', { replaces: null, thrust: 'plate', play: inches('0.0045') });
  const zero = book.write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
  pass(book, zero, null, before(21), after(26.5));
  const setting = book.write('zero.set', { zero, after: null, moved: 'wheel' });
  pass(book, zero, setting, before(23.75), after(23.75));
  book.write('tdc.identified', { replaces: null, looked: 'companion', seen: 'rocking' });
  book.write('mark.checked', {
    replaces: null,
    part: 'balancer',
    round: Math.PI * inches('7'),
    distance: inches('0.125'),
    stands: 'after',
  });
  book.write('card.entered', FENNEL_CARD);
  book.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1 });

  type Shows = BodyOf<'reading.taken'>['shows'];
  const reading = (
    of: { trial: string; method: ReadMethodName; valve: 'intake' | 'exhaust'; round: string },
    shows: Shows,
    wheel: WheelReading | null,
  ): string =>
    book.write('reading.taken', { ...of, setting, cylinder: 1, sitsOn: 'lifter', shows, approach: 'forward', wheel });
  const pair = (trial: string, valve: 'intake' | 'exhaust', opening: WheelReading, closing: WheelReading): void => {
    const of = { trial, method: 'centreline', valve, round: book.nextId() } as const;
    const shows = (flank: 'opening' | 'closing'): Shows => ({ kind: 'below-peak', flank, drop: inches('0.050') });
    reading(of, shows('opening'), opening);
    if (opening.shows === 62.5) {
      const misread = reading(of, shows('closing'), after(164.5));
      book.write('entry.voided', { voids: misread, reason: 'Misread the tens.' });
    }
    reading(of, shows('closing'), closing);
  };
  const identity = (valve: 'intake' | 'exhaust', lift: string): string =>
    reading(
      { trial: first, method: 'identity', valve, round: book.nextId() },
      { kind: 'peak-lift', lift: inches(lift) },
      null,
    );
  identity('intake', '0.3295');
  identity('exhaust', '0.339');
  pair(first, 'intake', after(62.5), after(154.5));
  pair(first, 'intake', after(62), after(154.75));
  pair(first, 'exhaust', before(157), before(64.5));
  const second = book.write('trial.begun', { after: first, note: 'Crank gear on its +2 keyway' });
  pair(second, 'intake', after(60.25), after(152.5));
  pair(second, 'exhaust', before(159), before(66.5));
  const events = { trial: second, method: 'events', valve: 'intake', round: book.nextId() } as const;
  const risen = (flank: 'opening' | 'closing'): Shows => ({ kind: 'above-base', flank, lift: inches('0.050') });
  reading(events, risen('opening'), before(0.5));
  reading(events, risen('closing'), before(146.75));
  return book.entries;
}

/** Zero proved and card entered; the first of two readings taken. */
export function alderCreekFour(pen: Pen): Entry[] {
  const book = openLogbook(pen);
  book.write('build.described', {
    replaces: null,
    name: 'Alder Creek four',
    engine: {
      cylinders: 4,
      firingOrder: [1, 3, 4, 2],
      rotation: 'counter-clockwise',
      stroke: millimetres(86),
      rod: millimetres(142),
    },
    wheel: { ring: '0-360', sense: 'falling' },
    units: 'mm',
  });
  const trial = book.write('trial.begun', { after: null });
  const zero = book.write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
  pass(book, zero, null, falling(223), falling(165));
  const setting = book.write('zero.set', { zero, after: null, moved: 'wheel' });
  pass(book, zero, setting, falling(29), falling(331.25));
  book.write('card.entered', {
    replaces: null,
    name: 'Alder street 9.2',
    intake: {
      centreline: 110,
      lobeLift: millimetres(9.2),
      timing: [{ height: millimetres(1), at: 'lobe', opens: 8, closes: 48 }],
    },
    exhaust: {
      centreline: 112,
      lobeLift: millimetres(8.9),
      timing: [{ height: millimetres(1), at: 'lobe', opens: 52, closes: 8 }],
    },
  });
  book.write('target.set', { replaces: null, target: { kind: 'ahead-of-card', advance: 2 }, limit: 1.5 });
  book.write('reading.taken', {
    setting,
    trial,
    round: book.nextId(),
    cylinder: 1,
    valve: 'intake',
    sitsOn: 'lifter',
    shows: { kind: 'below-peak', flank: 'opening', drop: millimetres(1) },
    approach: 'forward',
    wheel: falling(295),
  });
  return book.entries;
}

/** Both contacts read; the wheel waits to be set. */
export function oldTarnEight(pen: Pen): Entry[] {
  const book = openLogbook(pen);
  book.write('build.described', {
    replaces: null,
    name: 'Old Tarn eight',
    engine: { cylinders: 8, firingOrder: [1, 8, 7, 2, 6, 5, 4, 3], rotation: 'clockwise' },
    wheel: { ring: '0-90' },
    units: 'in',
  });
  book.write('trial.begun', { after: null });
  const zero = book.write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
  pass(
    book,
    zero,
    null,
    { ring: '0-90', shows: 18, side: 'before-tdc' },
    { ring: '0-90', shows: 31.5, side: 'after-tdc' },
  );
  return book.entries;
}

/** Two camshafts with a verdict each: the intake 3° late, the exhaust on its card. */
export function gannetTwin(pen: Pen): Entry[] {
  const book = openLogbook(pen);
  book.write('build.described', {
    replaces: null,
    name: 'Gannet twin-cam',
    engine: {
      cylinders: 4,
      firingOrder: [1, 3, 4, 2],
      rotation: 'clockwise',
      stroke: millimetres(79),
      rod: millimetres(136),
      bore: millimetres(83),
      compression: { given: 'ratio', ratio: 11.2 },
      cams: 'twin',
    },
    wheel: { ring: '0-360', sense: 'rising' },
    units: 'mm',
    instruments: { wheelDiameter: millimetres(360), graduation: 1, resolution: millimetres(0.01) },
  });
  const trial = book.write('trial.begun', { after: null });
  book.write('engine.as-it-stands', {
    replaces: null,
    head: 'on',
    plugHole: true,
    wheel: true,
    indicator: true,
    lifter: 'bucket',
    springs: 'valve',
    drive: 'belt',
  });
  const zero = book.write('zero.begun', { after: null, method: 'plug-stop', cylinder: 1 });
  pass(book, zero, null, rising(-31), rising(36));
  const setting = book.write('zero.set', { zero, after: null, moved: 'wheel' });
  pass(book, zero, setting, rising(-33.5), rising(33.5));
  book.write('card.entered', {
    replaces: null,
    name: 'Gannet 264/264',
    intake: {
      centreline: 108,
      lobeLift: millimetres(9.5),
      timing: [
        { height: millimetres(1), at: 'lobe', opens: 6, closes: 42 },
        { height: millimetres(0.15), at: 'lobe', opens: 24, closes: 60 },
      ],
    },
    exhaust: {
      centreline: 112,
      lobeLift: millimetres(9.3),
      timing: [
        { height: millimetres(1), at: 'lobe', opens: 46, closes: 2 },
        { height: millimetres(0.15), at: 'lobe', opens: 64, closes: 20 },
      ],
    },
  });
  book.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 0.5 });
  const take = measuring(book, setting, trial, 'bucket');
  take('identity', 'intake', [[{ kind: 'peak-lift', lift: millimetres(9.49) }, null]]);
  take('centreline', 'intake', flanksOf('below-peak', 1, rising(71), rising(151)));
  take('events', 'intake', flanksOf('above-base', 1, rising(-3), rising(225.5)));
  take('identity', 'exhaust', [[{ kind: 'peak-lift', lift: millimetres(9.31) }, null]]);
  take('centreline', 'exhaust', flanksOf('below-peak', 1, rising(-152.5), rising(-71.5)));
  take('events', 'exhaust', flanksOf('above-base', 1, rising(-226), rising(2)));
  return book.entries;
}

/** The wheel slipped after the intake had been measured: the exhaust reads 6° early. */
export function quarryHillFour(pen: Pen): Entry[] {
  const book = openLogbook(pen);
  book.write('build.described', {
    replaces: null,
    name: 'Quarry Hill four',
    engine: {
      cylinders: 4,
      firingOrder: [1, 3, 4, 2],
      rotation: 'clockwise',
      stroke: inches('3.4'),
      rod: inches('5.6'),
    },
    wheel: { ring: '0-180' },
    units: 'in',
    instruments: { wheelDiameter: inches('11'), graduation: 1, resolution: inches('0.001') },
  });
  const trial = book.write('trial.begun', { after: null });
  book.write('engine.as-it-stands', {
    replaces: null,
    head: 'off',
    plugHole: true,
    wheel: true,
    indicator: true,
    lifter: 'solid',
    springs: 'checking',
    drive: 'chain',
  });
  const zero = book.write('zero.begun', { after: null, method: 'positive-stop', cylinder: 1 });
  pass(book, zero, null, before(19), after(28));
  const setting = book.write('zero.set', { zero, after: null, moved: 'wheel' });
  pass(book, zero, setting, before(23.5), after(23.5));
  book.write('card.entered', {
    replaces: null,
    name: 'Quarry 262',
    intake: {
      centreline: 106,
      lobeLift: inches('0.320'),
      timing: [
        { height: inches('0.050'), at: 'lobe', opens: 3, closes: 35 },
        { height: inches('0.006'), at: 'lobe', opens: 25, closes: 57 },
      ],
    },
    exhaust: {
      centreline: 112,
      lobeLift: inches('0.320'),
      timing: [
        { height: inches('0.050'), at: 'lobe', opens: 41, closes: -3 },
        { height: inches('0.006'), at: 'lobe', opens: 63, closes: 19 },
      ],
    },
  });
  book.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1 });
  const take = measuring(book, setting, trial, 'lifter');
  const half = inches('0.050');
  take('centreline', 'intake', flanksOf('below-peak', half, after(65), after(148)));
  take('events', 'intake', flanksOf('above-base', half, before(2.5), before(144.5)));
  take('centreline', 'exhaust', flanksOf('below-peak', half, before(159), before(76)));
  take('events', 'exhaust', flanksOf('above-base', half, after(133), before(9)));
  return book.entries;
}
