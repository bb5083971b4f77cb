import type { WheelReading } from '@yosoku/core/crank/wheel';
import type { BodyOf, Entry } from '@yosoku/core/logbook/entry';
import type { ReadMethodName } from '@yosoku/core/measure/read-methods';
import { inches, millimetres } from '@yosoku/core/units/length';
import { type Pen, openLogbook } from './scribe';

type Book = ReturnType<typeof openLogbook>;

function pass(book: Book, zero: string, setting: string | null, before: WheelReading, after: WheelReading): void {
  const together = { zero, setting, pass: book.nextId() };
  book.write('zero.reading', { ...together, side: 'before', wheel: before });
  book.write('zero.reading', { ...together, side: 'after', wheel: after });
}

const before = (shows: number): WheelReading => ({ ring: '0-180', shows, side: 'before' });
const after = (shows: number): WheelReading => ({ ring: '0-180', shows, side: 'after' });
const falling = (shows: number): WheelReading => ({ ring: '0-360', sense: 'falling', shows });

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
  for (const check of [...ticked, 'one-way-tensioner', 'indicator-in-line'] as const)
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
  book.write('card.entered', {
    replaces: null,
    name: 'Fennel 256-107',
    intake: {
      centreline: 107,
      lobeLift: inches('0.330'),
      timing: [
        { height: inches('0.050'), at: 'lobe', duration: 214 },
        { height: inches('0.006'), at: 'lobe', duration: 256 },
      ],
    },
    exhaust: {
      centreline: 112,
      lobeLift: inches('0.340'),
      timing: [
        { height: inches('0.050'), at: 'lobe', duration: 222 },
        { height: inches('0.006'), at: 'lobe', duration: 266 },
      ],
    },
    lobeSeparation: 109.5,
  });
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
    if (opening.shows === 66) {
      const misread = reading(of, shows('closing'), after(163));
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
  pair(first, 'intake', after(66), after(153));
  pair(first, 'intake', after(65.5), after(153.25));
  pair(first, 'exhaust', before(153.5), before(66));
  const second = book.write('trial.begun', { after: first, note: 'Crank gear on its +2 keyway' });
  pair(second, 'intake', after(63.75), after(151));
  pair(second, 'exhaust', before(155.5), before(68));
  const events = { trial: second, method: 'events', valve: 'intake', round: book.nextId() } as const;
  const risen = (flank: 'opening' | 'closing'): Shows => ({ kind: 'above-base', flank, lift: inches('0.050') });
  reading(events, risen('opening'), after(0.5));
  reading(events, risen('closing'), before(145.75));
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
