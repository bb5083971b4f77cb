import { makeRandom } from '../statistics/random';
import { book } from '../testing/book';

type Book = ReturnType<typeof book>;

/** A card of an old engine: events with the lash taken up, nothing else. mm. */
const LASH = 0.25;
function oldCard(at: Book, more: { lash?: number } = {}): void {
  const line = (opens: number, closes: number) => [{ height: 0, at: 'valve' as const, opens, closes }];
  const lash = more.lash ?? LASH;
  at.write('card.entered', {
    replaces: null,
    intake: { timing: line(14, 56), lashCold: lash, valveLift: 8.5 },
    exhaust: { timing: line(54, 16), lashCold: lash, valveLift: 8.5 },
  });
}
const felt = (at: Book, setting: string, valve: 'intake' | 'exhaust', opens: number, closes: number): void =>
  void at.round(
    'by-feel',
    valve,
    [
      { shows: { kind: 'by-feel', flank: 'opening' }, at: opens },
      { shows: { kind: 'by-feel', flank: 'closing' }, at: closes },
    ],
    { setting, sitsOn: 'valve' },
  );
/** Both valves felt with the cam so far ahead, each reading off by its own. */
function feelBoth(at: Book, setting: string, ahead: number, off: () => number): void {
  felt(at, setting, 'intake', -14 - ahead + off(), 180 + 56 - ahead + off());
  felt(at, setting, 'exhaust', -180 - 54 - ahead + off(), 16 - ahead + off());
}

describe('opening and closing by feel', () => {
  it('is a verdict within two degrees or so, and needs no indicator', () => {
    const at = book();
    oldCard(at);
    feelBoth(at, at.proved(), -8, () => 0);
    const { verdict, trials } = at.report();
    expect(verdict.headline).toMatch(/8\.0° late/);
    expect(verdict.expanded).toBeGreaterThan(0.9);
    expect(verdict.expanded).toBeLessThan(3);
    expect(trials[0]?.views.map(({ title, shows }) => `${title}: ${shows}`)).toContain(
      'Intake events by feel: IVO 6° BTDC, IVC 64° ABDC',
    );
  });
  it('asks for the lash where the card has none, and keeps the readings', () => {
    const at = book();
    oldCard(at, { lash: 0 });
    feelBoth(at, at.proved(), 0, () => 0);
    expect(at.report().problems.map(({ message }) => message)).toContain(
      'What is felt at the intake is its lash being taken up, and the lash is not known.',
    );
  });
  it('covers the truth with fingers that are up to two degrees off, and accuses none', () => {
    const random = makeRandom(515);
    let [covered, accused] = [0, 0];
    const engines = 120;
    for (let engine = 0; engine < engines; engine += 1) {
      const ahead = random.within(6);
      const hand = random.within(1);
      // Half of his error is his own, always the same way; half of it is new each time.
      const at = book();
      oldCard(at);
      feelBoth(at, at.proved(), ahead, () => hand + random.within(1.5));
      const { verdict } = at.report();
      if (Math.abs((verdict.delta ?? NaN) - ahead) <= (verdict.expanded ?? 0)) covered += 1;
      if (verdict.kind !== 'move' && verdict.kind !== 'leave' && verdict.kind !== 'measure-again') accused += 1;
    }
    expect(covered / engines).toBeGreaterThan(0.93);
    expect(accused).toBeLessThanOrEqual(2);
  });
});
