import fc from 'fast-check';
import {
  type Hardware,
  HARDWARE_KINDS,
  HARDWARE_KIND_NAMES,
  type Setting,
  advanceOfSetting,
  hardwareSchema,
  reachOf,
  settingLabel,
  straightUp,
} from './hardware';
import { correctAngle, type PhaserHardware } from './electronic-angle';
import { instruct } from './instruct';
import { holesFor, stepOf } from './kinds/hole-circle';
import { learnResponse } from './learned-response';
import { type CamToMove, planMove } from './plan-move';
import type { FittedPart } from './fitted-part';
import { directSet } from './set-by-indicator';
import { splitInProportion } from './two-marks';

const KEYWAYS: Hardware = { kind: 'keyways', stamped: 'crank', marks: [-8, -6, -4, -2, 0, 2, 4, 6, 8] };
const BUSHINGS: Hardware = { kind: 'bushings', stamped: 'cam', marks: [-2, -1, 0, 1, 2] };
const SLOTTED: Hardware = { kind: 'slotted-pulley', stamped: 'cam', range: 3, scale: true };

/** One of each, all that the table knows. */
const EACH: Readonly<Record<keyof typeof HARDWARE_KINDS, Hardware>> = {
  keyways: KEYWAYS,
  bushings: BUSHINGS,
  'offset-dowel': { kind: 'offset-dowel', radius: 20, offsets: [0.5, 1] },
  'offset-key': { kind: 'offset-key', radius: 16, offsets: [0.5, 1] },
  eccentric: { kind: 'eccentric', stamped: 'crank', range: 8, scale: false },
  'slotted-pulley': SLOTTED,
  'hole-circle': { kind: 'hole-circle', gear: 18, hub: 20 },
  'hole-sets': { kind: 'hole-sets', teeth: 40, sets: 6 },
  taper: { kind: 'taper' },
  'tooth-jump': { kind: 'tooth-jump', teeth: 48 },
  phaser: { kind: 'phaser', stamped: 'crank', sense: 'grows-late', from: -10, to: 20 },
};

const advance = (hardware: Hardware, mark: string): number => advanceOfSetting(hardware, { mark }) ?? NaN;

describe('what each kind can be put to', () => {
  test('labels in cam degrees count double at the crank, stamped as the maker stamps them', () => {
    expect(advance(KEYWAYS, '+6')).toBe(6);
    expect(advance(BUSHINGS, '−1')).toBe(-2);
    expect(advanceOfSetting(SLOTTED, { at: 1.5 })).toBe(3);
  });

  // Closed forms: sin of the angle = offset / radius, right-angled triangle (Euclid, Elements; any trigonometry text).
  test('an offset dowel turns the cam by asin(offset / radius), an offset key the crank', () => {
    expect(advance(EACH['offset-dowel'], '+1 mm')).toBeCloseTo((2 * Math.asin(1 / 20) * 180) / Math.PI, 9);
    expect(advance(EACH['offset-key'], '−0.5 mm')).toBeCloseTo((-Math.asin(0.5 / 16) * 180) / Math.PI, 9);
    // From memory of a table of sines: asin 0.05 = 2.866°.
    expect(advance(EACH['offset-dowel'], '+1 mm') / 2).toBeCloseTo(2.866, 3);
  });

  // The vernier: n divisions against n + 1 read 1/(n(n+1)) of a turn (P. Vernier, 1631, as in any metrology text).
  test('two circles of holes step by 2·360/lcm, a wheel of hole sets by 720/teeth/sets, a tooth by 720/teeth', () => {
    expect(stepOf(9, 10)).toBeCloseTo(720 / 90, 12);
    expect(stepOf(18, 20)).toBeCloseTo(720 / 180, 12);
    expect(advance(EACH['hole-sets'], '+1')).toBeCloseTo(3, 12);
    expect(advance(EACH['tooth-jump'], '−1')).toBeCloseTo(-15, 12);
  });

  test('the holes that are counted on make just the turn that was asked for, the shortest way', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 60 }),
        fc.integer({ min: 2, max: 60 }),
        fc.integer({ min: -30, max: 30 }),
        (p, q, k) => {
          // No further than a plan ever goes.
          fc.pre(p !== q && Math.abs(k) * stepOf(p, q) <= 20);
          const { gear, hub } = holesFor(p, q, k);
          const turned = 2 * 360 * (gear / p - hub / q);
          // A whole turn of the pin is no turn of the cam.
          const off = (((turned - k * stepOf(p, q)) % 720) + 720) % 720;
          expect(Math.min(off, 720 - off)).toBeLessThan(1e-6);
          expect(Math.abs(gear) + Math.abs(hub)).toBeLessThanOrEqual(p + q);
        },
      ),
    );
  });

  test.each(HARDWARE_KIND_NAMES)(
    '%s: its schema takes it, it stands straight up at first, and says where it is',
    (kind) => {
      const hardware = EACH[kind];
      expect(hardwareSchema.safeParse(hardware).success).toBe(true);
      const at = straightUp(hardware);
      expect(Math.abs(advanceOfSetting(hardware, at) ?? NaN)).toBeLessThan(1e-9);
      expect(settingLabel(hardware, at)).not.toMatch(/undefined|NaN|^no /);
      expect(advanceOfSetting(hardware, { mark: 'nowhere' })).toBeNull();
      expect(advanceOfSetting(hardware, { at: 300 })).toBeNull();
    },
  );

  test.each([
    [{ ...KEYWAYS, marks: [] }, /at least two positions/],
    [{ ...KEYWAYS, marks: [4, 4] }, /stands twice/],
    [{ ...KEYWAYS, stamped: 'degrees' }, /crank or cam degrees/],
    [{ ...SLOTTED, range: 0 }, /a range of 0 moves nothing/],
    [{ kind: 'tooth-jump', teeth: 0 }, /at least 8/],
    [{ kind: 'offset-dowel', radius: 10, offsets: [12] }, /half the radius or more/],
    [{ kind: 'offset-key', radius: 16, offsets: [] }, /at least one offset/],
    [{ kind: 'hole-circle', gear: 20, hub: 20 }, /no finer step/],
    [{ kind: 'phaser', stamped: 'cam', sense: 'grows-early', from: 5, to: 5 }, /a range of 0/],
  ])('%j is refused with what to do', (hardware, says) => {
    const read = hardwareSchema.safeParse(hardware);
    expect(read.error?.issues.map(({ message }) => message).join()).toMatch(says);
  });
});

describe('what a piece of hardware teaches', () => {
  test('one that gave 4.9 of its 6 gives about that the next time, and less than its label at other marks', () => {
    const from = { mark: '0' };
    const taught = learnResponse(KEYWAYS, [{ from, to: { mark: '+6' }, gave: 4.9, standard: 0.2 }]);
    const plain = learnResponse(KEYWAYS, []);
    expect(plain.expect(from, { mark: '+6' }).gives).toBe(6);
    expect(taught.expect(from, { mark: '+6' }).gives).toBeGreaterThan(4.9);
    expect(taught.expect(from, { mark: '+6' }).gives).toBeLessThan(5.3);
    expect(taught.expect(from, { mark: '+4' }).gives).toBeLessThan(3.8);
    expect(taught.standard).toBeLessThan(plain.standard);
    expect(taught.learnedFrom).toBe(1);
  });

  test('more measured moves make it surer, and nothing makes an assembly surer than it scatters', () => {
    const move = { from: { at: 0 }, to: { at: 2 }, gave: 3.4, standard: 0.2 };
    const spread = (count: number): number =>
      learnResponse(
        SLOTTED,
        Array.from({ length: count }, () => move),
      ).expect({ at: 0 }, { at: 2 }).standard;
    expect(spread(1)).toBeLessThan(spread(0));
    expect(spread(8)).toBeLessThan(spread(1));
    expect(spread(200)).toBeGreaterThanOrEqual(0.2);
  });

  test('a move to a mark that the hardware no longer has teaches nothing', () => {
    expect(
      learnResponse(KEYWAYS, [{ from: { mark: '0' }, to: { mark: '+5' }, gave: 5, standard: 0.1 }]).learnedFrom,
    ).toBe(0);
  });
});

const part = (
  name: string,
  hardware: Hardware,
  turns: string[] = ['single'],
  at: Setting = straightUp(hardware),
): FittedPart => ({
  part: name,
  hardware,
  at,
  turns,
  response: learnResponse(hardware, []),
});
const late = (delta: number, more: Partial<CamToMove> = {}): CamToMove => ({
  cam: 'single',
  delta,
  room: null,
  ...more,
});

describe('what is set where', () => {
  test('a 2½° late cam: the nearest keyway, advanced; the next best beside it', () => {
    const [best, second] = planMove([part('gear', KEYWAYS)], [late(-2.5)]);
    expect(best).toMatchObject({ parts: [{ from: { mark: '0' }, to: { mark: '+2' }, gives: 2 }], wheelOff: true });
    expect(best?.cams[0]?.leaves).toBeCloseTo(-0.5, 9);
    expect(second?.parts[0]?.to).toEqual({ mark: '+4' });
  });

  test('keyway and bushing together reach what neither does alone', () => {
    const both = planMove([part('gear', { ...KEYWAYS, marks: [-8, -4, 0, 4, 8] }), part('set', BUSHINGS)], [late(-6)]);
    expect(both[0]?.remaining).toBeCloseTo(0, 9);
    expect(both[0]?.parts.map(({ part: name }) => name).sort()).toEqual(['gear', 'set']);
  });

  test('of two that leave as much, the one with less work; what goes anywhere takes up the rest', () => {
    const [best] = planMove([part('gear', KEYWAYS), part('pulley', SLOTTED)], [late(-2)]);
    expect(best?.parts.map(({ part: name }) => name)).toEqual(['pulley']);
    expect(best).toMatchObject({ frontApart: false, wheelOff: false });
    const far = planMove([part('gear', KEYWAYS), part('pulley', SLOTTED)], [late(-9.3)]);
    // A scale is set to a tenth: 0.2 at the crank.
    expect(far[0]?.remaining).toBeLessThanOrEqual(0.1 + 1e-9);
    expect(far[0]?.parts.length).toBe(2);
  });

  test('twin cams: what turns both is chosen for both, what turns one for its own', () => {
    const parts = [
      part('key', { kind: 'offset-key', radius: 16, offsets: [0.56] }, ['intake', 'exhaust']),
      part('in', SLOTTED, ['intake']),
      part('out', SLOTTED, ['exhaust']),
    ];
    const [best] = planMove(parts, [
      { cam: 'intake', delta: -3, room: null },
      { cam: 'exhaust', delta: 1, room: null },
    ]);
    expect(best?.parts.map(({ part: name }) => name)).toEqual(['in', 'out']);
    expect(best?.cams.map(({ by }) => Math.round(10 * by) / 10)).toEqual([3, -1]);
    // Both 9° late: the key brings 2° to both, the pulleys the rest up to their ends.
    const [far] = planMove(parts, [
      { cam: 'intake', delta: -7, room: null },
      { cam: 'exhaust', delta: -7, room: null },
    ]);
    expect(far?.parts.map(({ part: name }) => name)).toContain('key');
    expect(far?.remaining).toBeLessThan(0.1);
  });

  test('what brings a valve too near comes after everything that does not, however well it fits', () => {
    const plans = planMove([part('gear', KEYWAYS)], [late(-4, { room: { from: -20, to: 2.5 } })]);
    expect(plans[0]).toMatchObject({ breaks: false, parts: [{ to: { mark: '+2' } }] });
    expect(plans.every(({ breaks }, at) => !breaks || at > 0)).toBe(true);
    // What goes anywhere goes as far as there is room, and no further.
    for (const room of [
      { from: -20, to: 2.5 },
      { from: -20, to: 2.37 },
    ]) {
      const [ranged] = planMove([part('pulley', SLOTTED)], [late(-4, { room })]);
      expect(ranged?.breaks).toBe(false);
      expect(ranged?.cams[0]?.by).toBeLessThanOrEqual(room.to + 1e-9);
      expect(ranged?.cams[0]?.by).toBeGreaterThan(room.to - 0.21);
    }
    // All of them do: still told, and marked.
    const none = planMove([part('gear', KEYWAYS)], [late(-4, { room: { from: Infinity, to: -Infinity } })]);
    expect(none.every(({ breaks }) => breaks)).toBe(true);
  });

  test('a plan is right whatever is fitted: it leaves no more than staying does, and its parts add up', () => {
    const anything = fc.constantFrom(...Object.values(EACH));
    fc.assert(
      fc.property(
        fc.array(anything, { minLength: 1, maxLength: 3 }),
        fc.double({ min: -12, max: 12, noNaN: true }),
        (all, delta) => {
          const plans = planMove(
            all.map((hardware, at) => part(String(at), hardware)),
            [late(delta)],
          );
          for (const { parts, cams, remaining } of plans) {
            const by = parts.reduce((sum, { gives }) => sum + gives, 0);
            expect(cams[0]?.leaves).toBeCloseTo(delta + by, 6);
            expect(remaining).toBeCloseTo(Math.abs(delta + by), 6);
            for (const { part: name, to } of parts)
              expect(advanceOfSetting(all[Number(name)] as Hardware, to)).not.toBeNull();
          }
          expect(plans.length).toBeLessThanOrEqual(3);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('nothing that turns the cam: no plan', () => {
    expect(planMove([part('other', SLOTTED, ['exhaust'])], [late(-3)])).toEqual([]);
    expect(planMove([], [late(-3)])).toEqual([]);
  });
});

describe('the hands', () => {
  // Common practice, no source.
  test('64 and 149 with a target of 108: crank to 65.5', () => {
    expect(directSet(64, 149, 108)).toEqual({ crank: 65.5, half: 42.5 });
  });

  // Common practice, no source.
  test('two marks that cannot both be met are scaled: 10 and 20, found 13 and 23, become 12 and 24', () => {
    expect(splitInProportion({ first: 10, second: 20 }, { first: 13, second: 23 })).toEqual({
      first: 12,
      second: 24,
      firstBy: -1,
    });
    expect(splitInProportion({ first: 10, second: -10 }, { first: 13, second: 23 })).toBeNull();
  });

  const stepsFor = (hardware: Hardware, delta: number, known: Parameters<typeof instruct>[1]): string => {
    const [plan] = planMove([part('it', hardware)], [late(delta)]);
    const [planned] = plan?.parts ?? [];
    if (!planned) throw new Error('it can be moved');
    const direct = { crank: '65½° after', crankAnew: '66° after', shows: '0.050 in', valve: 'intake' };
    return instruct([{ name: 'the part', hardware, planned, cams: 'the cam', direct }], known)
      .flatMap(({ text, caution }) => [text, caution ?? ''])
      .join('\n');
  };
  const CHAIN = { drive: 'chain', rotation: 'clockwise', camTurns: 'with-crank' } as const;

  test('a gear drive turns the other way: the words turn with it, the way it runs stays right', () => {
    expect(stepsFor(SLOTTED, -2, CHAIN)).toMatch(/advance it: the way the cam runs \(clockwise, seen from the wheel\)/);
    const gears = { ...CHAIN, drive: 'gear', camTurns: 'against-crank' } as const;
    expect(stepsFor(SLOTTED, -2, gears)).toMatch(/the way the cam runs \(counter-clockwise/);
    expect(stepsFor(SLOTTED, 2, gears)).toMatch(/retard it: against the way the cam runs \(clockwise/);
  });

  test.each(HARDWARE_KIND_NAMES)(
    '%s: turned by hand afterwards, torque by the manual, slack and tensioner where there are any',
    (kind) => {
      const hardware = EACH[kind];
      const words = stepsFor(hardware, kind === 'tooth-jump' ? -14 : -3, CHAIN);
      expect(words).toMatch(/two full turns the way it runs/);
      expect(words).toMatch(/engine maker’s manual/);
      expect(words).toMatch(/taut on the side that the crank pulls/);
      if (HARDWARE_KINDS[kind].work === 'front-apart') expect(words).toMatch(/one-way tensioner is locked first/);
      expect(/degree wheel off/.test(words)).toBe(HARDWARE_KINDS[kind].wheelOff);
      expect(stepsFor(hardware, kind === 'tooth-jump' ? -14 : -3, { ...CHAIN, drive: 'gear' })).not.toMatch(/taut/);
    },
  );

  test('what is set anywhere is set by the indicator, the crank held', () => {
    expect(stepsFor({ kind: 'taper' }, -3, CHAIN)).toMatch(
      /Bring the crank, coming the way it runs, to 65½° after[\s\S]*to where the indicator on the intake shows 0\.050 in before peak/,
    );
  });
});

describe('a phaser in its maker’s own scale', () => {
  const hardware = EACH.phaser as PhaserHardware;
  // Common practice, no source.
  test('correction = nominal − measured, with its sign; a scale that grows late turns it round at the crank', () => {
    expect(correctAngle(hardware, [{ nominal: 5, shows: 7.5, setTo: null }])).toMatchObject({
      correction: -2.5,
      advance: 2.5,
      windUp: 0,
      setTo: 5,
    });
    const early = { ...hardware, sense: 'grows-early', stamped: 'cam' } as const;
    expect(correctAngle(early, [{ nominal: 5, shows: 7.5, setTo: null }])).toMatchObject({ advance: -5 });
  });

  test('what the spring takes back in two turns is learned, and set beforehand the next time', () => {
    const found = correctAngle(hardware, [
      { nominal: 5, shows: 8, setTo: null },
      { nominal: 5, shows: 4.4, setTo: 5 },
    ]);
    expect(found?.windUp).toBeCloseTo(0.6, 9);
    expect(found?.setTo).toBeCloseTo(5.6, 9);
    expect(correctAngle(hardware, [])).toBeNull();
  });
});

test('anywhere in a range: reach says so, and its ends are inside it', () => {
  const reach = reachOf(SLOTTED);
  expect(reach).toMatchObject({ kind: 'range', from: -3, to: 3, perUnit: 2, scale: true });
  expect(advanceOfSetting(SLOTTED, { at: 3 })).toBe(6);
});
