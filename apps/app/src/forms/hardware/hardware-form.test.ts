import { type Hardware, HARDWARE_KIND_NAMES, questionsOf } from '@yosoku/core/timing-set/hardware';
import { EMPTY_HARDWARE, type HardwareForm, hardwareForm, readHardware } from './hardware-form';

const typed = (more: Partial<HardwareForm>) => readHardware({ ...EMPTY_HARDWARE, name: 'Gear', ...more }, 'in');

/** One of each kind, as kept. */
const EACH: readonly Hardware[] = [
  { kind: 'keyways', stamped: 'crank', marks: [-4, 0, 4] },
  { kind: 'bushings', stamped: 'cam', marks: [-1.5, 0, 1.5] },
  { kind: 'offset-dowel', radius: 19.05, offsets: [0.508, 1.016] },
  { kind: 'offset-key', radius: 16, offsets: [0.25] },
  { kind: 'eccentric', stamped: 'crank', range: 6, scale: false },
  { kind: 'slotted-pulley', stamped: 'cam', range: 4.5, scale: true },
  { kind: 'hole-circle', gear: 18, hub: 20 },
  { kind: 'hole-sets', teeth: 40, sets: 6 },
  { kind: 'taper' },
  { kind: 'tooth-jump', teeth: 44 },
  { kind: 'phaser', stamped: 'crank', sense: 'grows-late', from: -10, to: 25 },
];

test('every kind is typed, kept, and typed again without a change', () => {
  expect(EACH.map(({ kind }) => kind).sort()).toEqual([...HARDWARE_KIND_NAMES].sort());
  for (const hardware of EACH)
    for (const unit of ['in', 'mm'] as const) {
      const form = hardwareForm('Gear', hardware, unit);
      expect(readHardware(form, unit)).toEqual({ ok: true, name: 'Gear', hardware });
    }
});

test('figures as they are stamped and typed: signs of either kind, commas, one unit at the end for all', () => {
  expect(typed({ kind: 'keyways', stamped: 'crank', marks: '−4; 0, +4'.replace(', ', ' ') })).toMatchObject({
    hardware: { marks: [-4, 0, 4] },
  });
  expect(typed({ kind: 'bushings', stamped: 'cam', marks: '-1,5 0 1,5' })).toMatchObject({
    hardware: { marks: [-1.5, 0, 1.5] },
  });
  expect(typed({ kind: 'offset-dowel', radius: '.75', offsets: '0.020 0.040' })).toMatchObject({
    hardware: { radius: 19.05, offsets: [0.508, 1.016] },
  });
  expect(typed({ kind: 'offset-key', radius: '16 mm', offsets: '0.25 0.5 mm' })).toMatchObject({
    hardware: { radius: 16, offsets: [0.25, 0.5] },
  });
});

test('what is wrong stands at its own field, and what is missing too', () => {
  const trouble = (more: Partial<HardwareForm>) => {
    const read = typed(more);
    return read.ok ? {} : read.trouble;
  };
  expect(trouble({ name: ' ' }).name).toMatch(/Give it a name/);
  expect(trouble({ kind: 'keyways', marks: '0 4' }).stamped).toMatch(/crank or cam degrees/);
  expect(trouble({ kind: 'keyways', stamped: 'crank', marks: '' }).marks).toMatch(/at least two positions/);
  expect(trouble({ kind: 'keyways', stamped: 'crank', marks: '0 four' }).marks).toMatch(/between −90 and 90/);
  expect(trouble({ kind: 'eccentric', stamped: 'cam', range: '0' }).range).toMatch(/range of 0/);
  expect(trouble({ kind: 'tooth-jump', teeth: '0' }).teeth).toMatch(/at least 8/);
  expect(trouble({ kind: 'tooth-jump', teeth: '4.5' }).teeth).toMatch(/whole number/);
  expect(trouble({ kind: 'offset-key', radius: '10 mm', offsets: '12 mm' }).offsets).toMatch(/half the radius/);
  for (const kind of HARDWARE_KIND_NAMES)
    if (questionsOf(kind).length > 0) expect(Object.keys(trouble({ kind })).length).toBeGreaterThan(0);
});
