import type { WheelReading } from '@yosoku/core/crank/wheel';
import type { Entry } from '@yosoku/core/logbook/entry';
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
    intake: { centreline: 107, lobeLift: inches('0.330') },
  });
  book.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1 });

  const pair = (trial: string, opening: number, closing: number): void => {
    const round = book.nextId();
    const read = (flank: 'opening' | 'closing', shows: number): string =>
      book.write('reading.taken', {
        setting,
        trial,
        round,
        cylinder: 1,
        valve: 'intake',
        sitsOn: 'lifter',
        shows: { kind: 'below-peak', flank, drop: inches('0.050') },
        approach: 'forward',
        wheel: after(shows),
      });
    read('opening', opening);
    if (opening === 66) {
      const misread = read('closing', 163);
      book.write('entry.voided', { voids: misread, reason: 'Misread the tens.' });
    }
    read('closing', closing);
  };
  pair(first, 66, 153);
  pair(first, 65.5, 153.25);
  const second = book.write('trial.begun', { after: first, note: 'Crank gear on its +2 keyway' });
  pair(second, 63.75, 151);
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
    intake: { centreline: 110, lobeLift: millimetres(9.2) },
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
