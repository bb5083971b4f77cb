import fc from 'fast-check';
import { derive } from '@yosoku/core/report/report';
import { book } from '@yosoku/core/testing/book';
import { cardProblems, eventEcho } from './card-trouble';
import { readCard } from './read-card';
import { type CardForm, cardForm, emptyCard, typedCard } from './typed-card';
import { eventFigure } from './event-figure';

const report = () => book().report();
const form = (typed: Partial<CardForm>): CardForm => ({ ...emptyCard(report(), null), ...typed });
const read = (typed: Partial<CardForm>) => readCard(form(typed), 'in');

test.each([
  ['21', 'opens', 21],
  ['-5', 'opens', -5],
  ['5 ATDC', 'opens', -5],
  ['5,5° after', 'opens', -5.5],
  ['7 BTDC', 'closes', -7],
  ['23.5 ATDC', 'closes', 23.5],
  ['55 ABDC', 'closes', 55],
  ['soon', 'opens', NaN],
] as const)('an event typed “%s” (%s) is %d', (typed, which, figure) => expect(eventFigure(typed, which)).toBe(figure));

test('events in inches of the flywheel’s rim are kept in degrees, and need its diameter', () => {
  const typed = { opens0: '1 7/8 in before', closes0: '6½ in', 'ex closes0': '⅝ before', flywheel: '12' };
  expect(read(typed)).toMatchObject({
    card: {
      // 12 in across is 37.70 in round: 1⅞ in of it 17.90°, 6½ in 62.07°, ⅝ in 5.97°.
      intake: { timing: [{ opens: 17.9, closes: 62.07 }] },
      exhaust: { timing: [{ closes: -5.97 }] },
    },
  });
  expect(eventEcho(form(typed), 'opens0', 'in')).toBe('17.90°');
  expect(cardProblems(form({ opens0: '1 7/8' }), 'in').opens0).toMatch(/need the diameter of the flywheel/);
  expect(cardProblems(form({ flywheel: '1 7/0' }), 'in').flywheel).toMatch(/“7\/0” is no fraction/);
  expect(cardProblems(form({ opens0: '1 7/0 in', flywheel: '12' }), 'in').opens0).toMatch(/Type a valve event/);
});

test('a card is read as it is typed, contradictions and all', () => {
  expect(
    read({
      name: ' Fennel 256 ',
      centreline: '107',
      lobeLift: '330',
      lashHot: '.020',
      opens0: '21',
      closes0: '55',
      duration0: '260',
      'ex opens0': '65.5',
      'ex closes0': '7 BTDC',
      duration1: '280',
      tdcCentreline0: '106',
      tdcLift0: '115',
      lsa: '109',
      judgedBy: 'events',
    }),
  ).toEqual({
    ok: true,
    card: {
      name: 'Fennel 256',
      lobeSeparation: 109,
      intake: {
        centreline: 107,
        lobeLift: 8.382,
        lashHot: 0.508,
        timing: [
          { height: 1.27, at: 'lobe', duration: 260, opens: 21, closes: 55 },
          { height: null, at: 'lobe', duration: 280 },
        ],
        liftAtTdc: [{ centreline: 106, lift: 2.921 }],
      },
      exhaust: { timing: [{ height: 1.27, at: 'lobe', opens: 65.5, closes: -7 }] },
    },
    target: { target: { kind: 'card' }, limit: 1, judgedBy: 'events' },
  });
});

test.each<[string, Partial<CardForm>, RegExp]>([
  ['centreline', { centreline: '700' }, /700 cannot be an intake centreline: expected 1 to 179/],
  ['ratio', { ratio: '0.2' }, /0\.2 cannot be a rocker ratio: expected 0\.5 to 3/],
  ['ex lobeLift', { 'ex lobeLift': '-3' }, /cannot be negative/],
  ['valveLift', { valveLift: '3 in' }, /more than any valve lift/],
  ['height1', { opens0: '21', opens1: '20', height1: '0.050' }, /stands twice/],
  ['tdcCentreline0', { tdcLift0: '.1' }, /For which centreline/],
  ['opens0', { opens0: 'soon' }, /Type a valve event in figures/],
])('%s is refused at its own field', (field, typed, words) => {
  expect(cardProblems(form(typed), 'in')).toEqual({ [field]: expect.stringMatching(words) });
  expect(readCard(form(typed), 'in').ok).toBe(false);
});

test('an empty card is refused, unless the target stands by itself', () => {
  expect(read({})).toMatchObject({ ok: false, message: expect.stringMatching(/card is empty/) });
  expect(read({ kind: 'centreline', wanted: '108' })).toMatchObject({ ok: true, card: {} });
});

test('what was kept comes back into the form, and is read from it without change', () =>
  fc.assert(
    fc.property(
      fc.integer({ min: 90, max: 120 }),
      fc.integer({ min: 200, max: 500 }),
      fc.integer({ min: -20, max: 60 }),
      fc.constantFrom(null, 0.1524, 1.27, 1),
      (centreline, thou, opens, height) => {
        const card = {
          intake: {
            centreline,
            lobeLift: Math.round(thou * 25400) / 1e6,
            timing: [{ height, at: 'valve' as const, opens }],
          },
        };
        const again = readCard({ ...form({}), ...typedCard(card, 'mm') }, 'mm');
        if (!again.ok) throw new Error(again.message);
        expect(again.card.intake).toEqual(card.intake);
      },
    ),
  ));

test('a kept card and target fill the form', () => {
  const job = book();
  job.card(107);
  job.write('target.set', { replaces: null, target: { kind: 'ahead-of-card', advance: 2.5 }, limit: 0.5 });
  const filled = derive(job.entries);
  if (!filled) throw new Error('there is a build');
  expect(cardForm(filled)).toMatchObject({
    centreline: '107',
    lobeLift: '0.330 in',
    kind: 'ahead-of-card',
    advance: '2.5',
    limit: '0.5',
  });
});
