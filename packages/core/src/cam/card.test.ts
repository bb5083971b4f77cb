import fc from 'fast-check';
import { readingAt, ringPosition } from '../crank/wheel';
import { inches } from '../units/length';
import {
  type CamCard,
  centrelineAsPrinted,
  closesAsPrinted,
  closesAt,
  durationOf,
  eventCentre,
  noseAt,
  opensAsPrinted,
  opensAt,
} from './card';
import { completeCard } from './complete-card';
import { centrelineForLift, liftForCentreline } from './lift-at-tdc';
import { flanksAt, lobeAt } from './lobe';
import { aheadOfCard, targetCentreline } from './target';
import { eventWords } from './timing-line';

const H = 1.27;
const line = (figures: { duration?: number; opens?: number; closes?: number }, height: number | null = H) => ({
  height,
  at: 'lobe' as const,
  ...figures,
});
const complete = (card: CamCard) => completeCard(card, 'in');

test('overlap of advertised durations at a height that the card leaves unsaid', () => {
  // Common practice, no source: (303 + 313)/4 − 114 is 40 cam degrees, 80 of the crank.
  const advertised = complete({
    intake: { timing: [line({ duration: 303 }, null)] },
    exhaust: { timing: [line({ duration: 313 }, null)] },
    lobeSeparation: 114,
  });
  expect(advertised.overlaps).toEqual([
    { height: null, crank: 80, label: 'at the card’s own unstated height', from: 'both durations ÷ 2 − 2 × LSA' },
  ]);
});

test('what is counted from the wheel, from TDC and as a card prints it does not pass for one another', () => {
  const under = ringPosition({ ring: '0-180', shows: 112, side: 'after' });
  // @ts-expect-error the wheel may be off
  const fromTheWheel = noseAt('exhaust', under);
  // @ts-expect-error a card counts the exhaust before TDC
  const twice = noseAt('exhaust', noseAt('exhaust', 112));
  // @ts-expect-error past TDC is not under the pointer
  const shown = readingAt({ ring: '0-180' }, noseAt('exhaust', 112));
  // What they would say: each is another angle, and none of them looks wrong.
  expect([fromTheWheel, twice, shown]).toEqual([-112, 112, { ring: '0-180', shows: 112, side: 'before' }]);
  expect(centrelineAsPrinted('exhaust', noseAt('exhaust', 112))).toBe(112);
  expect(centrelineAsPrinted('intake', noseAt('intake', 108))).toBe(108);
});

const shows = (card: CamCard, key: string) => {
  const figure = complete(card).figures.find((each) => each.key === key);
  return figure && `${figure.shows}${figure.from === null ? '' : ` from ${figure.from}`}`;
};

describe('a card completed', () => {
  // Worked values, common practice, no source.
  test('21/55 is 256° about 107; 65.5/23.5 is 269° about 111; LSA 109', () => {
    expect([durationOf(21, 55), eventCentre('intake', 21, 55)]).toEqual([256, 107]);
    expect([durationOf(65.5, 23.5), eventCentre('exhaust', 65.5, 23.5)]).toEqual([269, 111]);
    const card = complete({
      intake: { timing: [line({ opens: 21, closes: 55 })] },
      exhaust: { timing: [line({ opens: 65.5, closes: 23.5 })] },
    });
    expect(card).toMatchObject({
      intake: { centreline: 107, lines: [{ duration: 256 }] },
      exhaust: { centreline: 111, lines: [{ duration: 269 }] },
      lobeSeparation: 109,
      groundInAdvance: 2,
      overlaps: [{ height: H, crank: 44.5 }],
      contradictions: [],
    });
  });

  test('22/68 at the seat is 270; 109 and 119 are LSA 114, 5° ground in; 0.280 × 1.5 is 0.420', () => {
    expect(durationOf(22, 68)).toBe(270);
    const card = { intake: { centreline: 109, lobeLift: inches('0.280'), ratio: 1.5 }, exhaust: { centreline: 119 } };
    expect(complete(card)).toMatchObject({ lobeSeparation: 114, groundInAdvance: 5 });
    expect(shows(card, 'intake.valveLift')).toBe('0.420 in from lobe lift × ratio, less lash');
  });

  test('valve lift is lobe lift × ratio − lash, either way round', () => {
    const lash = inches('0.020');
    expect(complete({ intake: { lobeLift: 8, ratio: 1.5, lashHot: lash } }).intake.valveLift).toBeCloseTo(11.492, 9);
    expect(complete({ intake: { valveLift: 11.492, ratio: 1.5, lashHot: lash } }).intake.lobeLift).toBeCloseTo(8, 9);
  });

  test('LSA and advance place both centrelines, and a duration its events about them; each says from what', () => {
    const card: CamCard = {
      lobeSeparation: 110,
      groundInAdvance: 4,
      intake: { timing: [line({ duration: 224 })] },
      exhaust: { timing: [line({ duration: 232 })] },
    };
    expect(complete(card)).toMatchObject({
      intake: { centreline: 106, lines: [{ opens: 6, closes: 38 }] },
      exhaust: { centreline: 114, lines: [{ opens: 50, closes: 2 }] },
      // (224 + 232)/2 − 2·110
      overlaps: [{ crank: 8 }],
    });
    expect(shows(card, 'intake.centreline')).toBe('106° ATDC from LSA − ground-in advance');
    expect(shows(card, `intake.opens@${H}`)).toBe('6° BTDC from duration about the ICL, taking the lobe as symmetric');
  });

  test('whatever is derived obeys the identities, and printed figures stay as they are', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 95, max: 120 }),
        fc.integer({ min: 95, max: 125 }),
        fc.integer({ min: 180, max: 300 }),
        fc.integer({ min: 180, max: 300 }),
        (icl, ecl, durationIn, durationEx) => {
          const { intake, exhaust, lobeSeparation, overlaps, contradictions } = complete({
            intake: { centreline: icl, timing: [line({ duration: durationIn })] },
            exhaust: { centreline: ecl, timing: [line({ duration: durationEx })] },
          });
          const [i, e] = [intake.lines[0], exhaust.lines[0]];
          expect(contradictions).toEqual([]);
          expect(durationOf(i?.opens ?? 0, i?.closes ?? 0)).toBeCloseTo(durationIn, 9);
          expect(eventCentre('exhaust', e?.opens ?? 0, e?.closes ?? 0)).toBeCloseTo(ecl, 9);
          expect(overlaps[0]?.crank).toBeCloseTo((durationIn + durationEx) / 2 - 2 * (lobeSeparation ?? 0), 9);
          expect([intake.centreline, exhaust.centreline]).toEqual([icl, ecl]);
        },
      ),
    ));

  test('events may lie the other side: −5 BTDC is 5° ATDC, and all come back from their cycle angles', () => {
    expect(eventWords(-5, 'intake', 'opens')).toBe('5° ATDC');
    expect(eventWords(-2.5, 'exhaust', 'closes')).toBe('2½° BTDC');
    for (const valve of ['intake', 'exhaust'] as const)
      for (const printed of [-12, 0, 33.5]) {
        expect(opensAsPrinted(valve, opensAt(valve, printed))).toBe(printed);
        expect(closesAsPrinted(valve, closesAt(valve, printed))).toBe(printed);
      }
  });

  test('the lobe of the card meets what the card prints', () => {
    const { curve, shape } = complete({
      intake: {
        centreline: 108,
        lobeLift: 8.4,
        timing: [line({ duration: 280 }, 0.15), line({ opens: 5, closes: 41 })],
      },
    }).intake;
    if (!curve) throw new Error('there is a lift and there are durations');
    expect(shape).toBe('full');
    const at = flanksAt(curve, H);
    expect((at?.closing ?? 0) - (at?.opening ?? 0)).toBeCloseTo(226, 2);
    expect(lobeAt(curve, 108).lift).toBeCloseTo(8.4, 9);
    // 5 and 41 are centred on 108: upright.
    expect(curve.lean).toBeCloseTo(0, 9);
  });
});

describe('a card that cannot be right', () => {
  test.each<[string, CamCard, RegExp, RegExp]>([
    [
      'events and duration',
      { intake: { timing: [line({ opens: 21, closes: 55, duration: 260 })] } },
      /21° \+ 180 \+ IVC 55° is 256°, but the card says 260°/,
      /duration of 256°, with IVO 25°, or with IVC 59°/,
    ],
    [
      'LSA and centrelines',
      { lobeSeparation: 112, intake: { centreline: 107 }, exhaust: { centreline: 111 } },
      /LSA of 109°, but the card says 112°/,
      /ICL 113°, or with ECL 117°/,
    ],
    [
      'LSA, ICL and advance',
      { lobeSeparation: 110, groundInAdvance: 4, intake: { centreline: 110 } },
      /is 0°, but the card says 4° ground in/,
      /ICL 106°/,
    ],
    [
      'centreline and events',
      { intake: { centreline: 112, timing: [line({ opens: 21, closes: 55 })] } },
      /centred on 107°, but the card says ICL 112°/,
      /leaning lobe makes up to about 3°, not 5°/,
    ],
    [
      'height above the lift',
      { exhaust: { lobeLift: 1, timing: [line({ duration: 220 })] } },
      /lifts only 0\.0394 in/,
      /unit/,
    ],
    [
      'valve lift and ratio',
      { intake: { lobeLift: 8, ratio: 1.5, valveLift: 14 } },
      /0\.4724 in, but the card says 0\.5512 in/,
      /ratio of 1\.75/,
    ],
    [
      'durations that grow',
      { intake: { timing: [line({ duration: 230 }, 0.15), line({ duration: 250 })] } },
      /no less than 230°/,
      /always shorter/,
    ],
  ])('%s: named, with what would reconcile it, kept and left out', (_what, card, message, remedy) => {
    const { contradictions, figures } = complete(card);
    expect(contradictions).toHaveLength(1);
    expect(contradictions[0]?.message).toMatch(message);
    expect(contradictions[0]?.remedy).toMatch(remedy);
    const named = contradictions[0]?.figures ?? [];
    for (const figure of figures) {
      expect(figure.disputed).toBe(named.includes(figure.key));
      if (figure.disputed) expect(figure.from).toBeNull();
    }
  });

  test('a degree of rounding, or of lean, is none', () => {
    expect(
      complete({
        lobeSeparation: 109.5,
        intake: { centreline: 108, timing: [line({ opens: 21, closes: 55, duration: 255 })] },
        exhaust: { centreline: 111 },
      }).contradictions,
    ).toEqual([]);
  });

  test('a disputed centreline aims at nothing', () => {
    const { intake } = complete({ lobeSeparation: 112, intake: { centreline: 107 }, exhaust: { centreline: 111 } });
    expect(intake.centreline).toBeNull();
    expect(targetCentreline(intake.centreline, { kind: 'card' }).ok).toBe(false);
    expect(aheadOfCard(108, { kind: 'centreline', centreline: 106 })).toBe(2);
  });
});

describe('lift at TDC', () => {
  const printed = [
    { centreline: 106, lift: inches('0.115') },
    { centreline: 110, lift: inches('0.099') },
  ];
  // Worked value, common practice, no source: 0.115 at 106 and 0.099 at 110 are 0.004 in per degree.
  test('between two centrelines, and outside them', () => {
    const at = liftForCentreline('intake', printed, 108);
    expect(at?.lift).toBeCloseTo(inches('0.107'), 9);
    expect(at?.perAdvance).toBeCloseTo(inches('0.004'), 9);
    expect(at?.extrapolated).toBe(false);
    expect(liftForCentreline('intake', printed, 113)).toMatchObject({ extrapolated: true });
    expect(liftForCentreline('exhaust', printed, 108)?.perAdvance).toBeCloseTo(-inches('0.004'), 9);
    expect(liftForCentreline('intake', printed.slice(1), 108)).toBeNull();
    expect(centrelineForLift(printed, inches('0.107'))).toBeCloseTo(108, 9);
    expect(centrelineForLift(printed, inches('0.091'))).toBeCloseTo(112, 9);
    expect(centrelineForLift(printed.slice(1), 2)).toBeNull();
  });
});
