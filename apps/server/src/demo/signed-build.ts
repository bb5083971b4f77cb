import type { BodyOf, Entry } from '@yosoku/core/record/entry';
import { derive } from '@yosoku/core/report/report';
import { SIGN_CHECK_NAMES } from '@yosoku/core/sign/sign-checks';
import { inches } from '@yosoku/core/units/length';
import { after, before, flanksOf, measuring, pass } from './measuring';
import { type Pen, openLogbook } from './demo-logbook';
import { NINE_KEYWAYS, PIECES } from './shelf';

const LARK_CARD: BodyOf<'card.entered'> = {
  replaces: null,
  name: 'Lark 250-108',
  intake: {
    centreline: 108,
    lobeLift: inches('0.310'),
    timing: [
      { height: inches('0.050'), at: 'lobe', opens: -4, closes: 32 },
      { height: inches('0.006'), at: 'lobe', opens: 17, closes: 53 },
    ],
  },
  exhaust: {
    centreline: 112,
    lobeLift: inches('0.310'),
    timing: [
      { height: inches('0.050'), at: 'lobe', opens: 36, closes: -8 },
      { height: inches('0.006'), at: 'lobe', opens: 57, closes: 13 },
    ],
  },
  lobeSeparation: 110,
};

/** From verdict to signature: 4½° late, moved by its crank gear, proved, cleared and signed. The gear gave less than its label. */
export function larkMillEight(pen: Pen): Entry[] {
  const book = openLogbook(pen);
  book.write('build.described', {
    replaces: null,
    name: 'Lark Mill eight',
    engine: {
      cylinders: 8,
      firingOrder: [1, 3, 5, 7, 2, 4, 6, 8],
      rotation: 'clockwise',
      stroke: inches('3.3'),
      rod: inches('5.8'),
      rockerRatio: { intake: 1.5, exhaust: 1.5 },
    },
    wheel: { ring: '0-180' },
    units: 'in',
    instruments: { wheelDiameter: inches('16'), graduation: 1, resolution: inches('0.0005') },
  });
  const first = book.write('trial.begun', { after: null });
  book.write('engine.as-it-stands', {
    replaces: null,
    head: 'on',
    plugHole: true,
    wheel: true,
    indicator: true,
    lifter: 'solid',
    springs: 'checking',
    drive: 'chain',
  });
  const zero = book.write('zero.begun', { after: null, method: 'plug-stop', cylinder: 1 });
  pass(book, zero, null, before(22), after(25));
  const setting = book.write('zero.set', { zero, after: null, moved: 'wheel' });
  pass(book, zero, setting, before(23.5), after(23.5));
  book.write('card.entered', LARK_CARD);
  book.write('target.set', { replaces: null, target: { kind: 'card' }, limit: 1 });
  const half = inches('0.050');
  const take = measuring(book, setting, first, 'lifter');
  take('identity', 'intake', [[{ kind: 'peak-lift', lift: inches('0.310') }, null]]);
  take('identity', 'exhaust', [[{ kind: 'peak-lift', lift: inches('0.3095') }, null]]);
  take('centreline', 'intake', flanksOf('below-peak', half, after(69.5), after(155.5)));
  take('centreline', 'exhaust', flanksOf('below-peak', half, before(150.5), before(64.5)));
  const part = book.nextId();
  book.write('drive.fitted', {
    replaces: null,
    trial: first,
    camTurns: 'with-crank',
    parts: [
      {
        part,
        name: 'Nine-keyway crank gear',
        library: PIECES.keyways,
        hardware: { ...NINE_KEYWAYS, marks: [...NINE_KEYWAYS.marks] },
        cam: 'all',
        bank: null,
        at: { mark: '0' },
        experience: [],
      },
    ],
  });
  const plan = derive(book.entries)?.move.plans[0];
  if (!plan) throw new Error('the demo’s cam is late, and its gear can be set');
  const second = book.write('trial.begun', {
    after: first,
    note: 'Crank gear on its +4 keyway',
    move: {
      parts: plan.parts.map((each) => ({ part: each.part, to: each.setting })),
      cams: plan.cams.map(({ cam, bank, by, standard }) => ({ cam, bank, by, standard })),
      predicted: [...plan.predicted],
    },
  });
  book.write('zero.disturbed', { setting, what: 'with-drive', keeps: readings(book.entries) });
  const again = book.write('zero.begun', { after: zero, method: 'plug-stop', cylinder: 1 });
  pass(book, again, null, before(26), after(21));
  const anew = book.write('zero.set', { zero: again, after: null, moved: 'wheel' });
  pass(book, again, anew, before(23.5), after(23.5));
  const prove = measuring(book, anew, second, 'lifter');
  prove('centreline', 'intake', flanksOf('below-peak', half, after(66), after(152)));
  prove('centreline', 'exhaust', flanksOf('below-peak', half, before(154), before(68)));
  const facing = { angle: 18, pocket: 'parallel' } as const;
  book.write('clearance.set-up', {
    replaces: null,
    intake: { ...facing, minimum: inches('0.080') },
    exhaust: { ...facing, minimum: inches('0.100') },
  });
  const gaps = { trial: second, cylinder: 1 };
  book.write('clearance.measured', { ...gaps, valve: 'intake', gaps: [{ at: 10, gap: inches('0.134') }] });
  book.write('clearance.measured', { ...gaps, valve: 'exhaust', gaps: [{ at: -10, gap: inches('0.154') }] });
  for (const check of SIGN_CHECK_NAMES)
    if (check !== 'clearance') book.write('sign.checked', { replaces: null, check, result: 'done' });
  book.write('build.signed', {
    after: null,
    name: 'Mara Quill',
    note: 'Gear gives less than its label: 3½ of the 4.',
  });
  return book.entries;
}

/** What leaned on the wheel before it came off: it stands. */
const readings = (entries: readonly Entry[]): string[] =>
  entries.flatMap(({ id, kind }) => (kind === 'reading.taken' ? [id] : []));
