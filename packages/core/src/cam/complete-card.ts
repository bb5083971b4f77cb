import type { CompletedLobe, Fact } from './completed-lobe';
import type { LengthUnit } from '../units/length';
import { type CamCard, EVENT_NAMES, type LobeCard, VALVES, type Valve, durationOf, eventCentre } from './card';
import { type Contradiction, type FigureKey, findContradictions } from './contradictions';
import { type CardFigure, figuresOf } from './card-figures';
import { curveOf } from './card-lobe';
import { heightWords, lineKey } from './timing-line';

export interface CompletedCard {
  readonly intake: CompletedLobe;
  readonly exhaust: CompletedLobe;
  readonly lobeSeparation: number | null;
  readonly groundInAdvance: number | null;
  readonly figures: readonly CardFigure[];
  readonly contradictions: readonly Contradiction[];
  /** IVO + EVC at one height, crank degrees. */
  readonly overlaps: readonly { readonly height: number; readonly crank: number; readonly label: string }[];
}

/**
 * Completes a card: whatever follows from what it prints, each figure with what it came from; and names what cannot all be right.
 * Figures in a contradiction are shown as printed, and nothing is worked out from them.
 * @param units in which lengths are put into words.
 * Identities of the trade (duration = opens + 180 + closes; LSA = (ICL + ECL)/2; ground-in advance = LSA − ICL): definitions.
 * @example completeCard({ intake: { timing: [{ height: 1.27, at: 'lobe', opens: 21, closes: 55 }] } }, 'in') // 256°, centre 107°
 */
export function completeCard(card: CamCard, units: LengthUnit): CompletedCard {
  const contradictions = findContradictions(card, units);
  const disputed = new Set(contradictions.flatMap(({ figures }) => figures));
  const facts = new Map<FigureKey, Fact>();
  const given = (key: FigureKey, value: number | undefined): void => {
    if (value !== undefined && !disputed.has(key)) facts.set(key, { value, from: null });
  };
  /** A rule: takes what it needs, gives one more figure. Nothing printed is ever replaced. */
  const rule = (
    key: FigureKey,
    needs: readonly FigureKey[],
    from: string,
    work: (...values: readonly number[]) => number,
  ): boolean => {
    if (facts.has(key) || disputed.has(key)) return false;
    const values = needs.map((need) => facts.get(need)?.value);
    if (values.some((value) => value === undefined)) return false;
    facts.set(key, { value: work(...(values as number[])), from });
    return true;
  };

  for (const valve of VALVES) {
    const lobe: LobeCard = card[valve] ?? {};
    for (const name of ['centreline', 'lobeLift', 'valveLift', 'ratio'] as const) given(`${valve}.${name}`, lobe[name]);
    given(`${valve}.lash`, lobe.lashHot ?? lobe.lashCold);
    for (const line of lobe.timing ?? [])
      for (const name of ['duration', 'opens', 'closes'] as const)
        given(`${valve}.${name}@${lineKey(line)}`, line[name]);
  }
  given('lobeSeparation', card.lobeSeparation);
  given('groundInAdvance', card.groundInAdvance);

  // Every rule once more whenever one has given something.
  for (let more = true; more;) {
    more = false;
    const tell = (gave: boolean): void => {
      more ||= gave;
    };
    for (const valve of VALVES) {
      const is = (name: string): FigureKey => `${valve}.${name}`;
      const names = EVENT_NAMES[valve];
      tell(
        rule(is('valveLift'), [is('lobeLift'), is('ratio')], 'lobe lift × ratio, less lash', (lobe = 0, ratio = 0) =>
          Math.max(0, lobe * ratio - (facts.get(is('lash'))?.value ?? 0)),
        ),
      );
      tell(
        rule(
          is('lobeLift'),
          [is('valveLift'), is('ratio')],
          'valve lift and lash ÷ ratio',
          (lift = 0, ratio = 1) => (lift + (facts.get(is('lash'))?.value ?? 0)) / ratio,
        ),
      );
      tell(
        rule(
          is('ratio'),
          [is('valveLift'), is('lobeLift')],
          'valve lift and lash ÷ lobe lift',
          (valveLift = 0, lobe = 1) => (valveLift + (facts.get(is('lash'))?.value ?? 0)) / lobe,
        ),
      );
      const lines = card[valve]?.timing ?? [];
      for (const line of lines) {
        const on = (name: string): FigureKey => is(`${name}@${lineKey(line)}`);
        const where = heightWords(line, units);
        tell(
          rule(
            on('duration'),
            [on('opens'), on('closes')],
            `${names.opens} + 180 + ${names.closes} ${where}`,
            (o = 0, c = 0) => durationOf(o, c),
          ),
        );
        tell(
          rule(
            on('opens'),
            [on('duration'), on('closes')],
            `duration − 180 − ${names.closes} ${where}`,
            (d = 0, c = 0) => d - 180 - c,
          ),
        );
        tell(
          rule(
            on('closes'),
            [on('duration'), on('opens')],
            `duration − 180 − ${names.opens} ${where}`,
            (d = 0, o = 0) => d - 180 - o,
          ),
        );
      }
      for (const line of lines) {
        const on = (name: string): FigureKey => is(`${name}@${lineKey(line)}`);
        const where = heightWords(line, units);
        tell(
          rule(
            is('centreline'),
            [on('opens'), on('closes')],
            `half-way between the events ${where}, taking the lobe as symmetric`,
            (o = 0, c = 0) => eventCentre(valve, o, c),
          ),
        );
      }
    }
    tell(
      rule(
        'lobeSeparation',
        ['intake.centreline', 'exhaust.centreline'],
        '(ICL + ECL) ÷ 2',
        (i = 0, e = 0) => (i + e) / 2,
      ),
    );
    tell(
      rule('groundInAdvance', ['lobeSeparation', 'intake.centreline'], 'LSA − ICL', (lsa = 0, icl = 0) => lsa - icl),
    );
    tell(
      rule(
        'intake.centreline',
        ['lobeSeparation', 'groundInAdvance'],
        'LSA − ground-in advance',
        (lsa = 0, a = 0) => lsa - a,
      ),
    );
    tell(
      rule(
        'exhaust.centreline',
        ['lobeSeparation', 'groundInAdvance'],
        'LSA + ground-in advance',
        (lsa = 0, a = 0) => lsa + a,
      ),
    );
    tell(
      rule(
        'intake.centreline',
        ['lobeSeparation', 'exhaust.centreline'],
        '2 × LSA − ECL',
        (lsa = 0, e = 0) => 2 * lsa - e,
      ),
    );
    tell(
      rule(
        'exhaust.centreline',
        ['lobeSeparation', 'intake.centreline'],
        '2 × LSA − ICL',
        (lsa = 0, i = 0) => 2 * lsa - i,
      ),
    );
    // Only when nothing better has placed the events: a duration laid about the centreline.
    if (!more)
      for (const valve of VALVES)
        for (const line of card[valve]?.timing ?? []) {
          const key = (name: string): FigureKey => `${valve}.${name}@${lineKey(line)}`;
          const from = `duration about the ${EVENT_NAMES[valve].centreline}, taking the lobe as symmetric`;
          const sign = valve === 'intake' ? -1 : 1;
          const needs = [key('duration'), `${valve}.centreline`];
          tell(rule(key('opens'), needs, from, (d = 0, c = 0) => d / 2 + sign * c - (valve === 'intake' ? 0 : 180)));
          tell(rule(key('closes'), needs, from, (d = 0, c = 0) => d / 2 - sign * c - (valve === 'intake' ? 180 : 0)));
        }
  }

  const valueOf = (key: FigureKey): number | null => facts.get(key)?.value ?? null;
  const lobeOf = (valve: Valve): CompletedLobe => {
    const lines = (card[valve]?.timing ?? []).map((line) => {
      const on = (name: string): number | undefined => valueOf(`${valve}.${name}@${lineKey(line)}`) ?? undefined;
      return {
        ...line,
        key: lineKey(line),
        assumed: line.height === null,
        duration: on('duration'),
        opens: on('opens'),
        closes: on('closes'),
      };
    });
    const [lobeLift, valveLift, ratio, centreline] = ['lobeLift', 'valveLift', 'ratio', 'centreline'].map((name) =>
      valueOf(`${valve}.${name}`),
    ) as [number | null, number | null, number | null, number | null];
    const fitted = curveOf(valve, { lines, lobeLift, valveLift, ratio, centreline }, card[valve] ?? {}, facts);
    return {
      centreline,
      lines,
      lobeLift,
      valveLift,
      ratio,
      curve: fitted?.lobe ?? null,
      placed: (centreline ?? card[valve]?.centreline ?? null) !== null,
      shape: fitted?.shape ?? null,
    };
  };
  const [intake, exhaust] = [lobeOf('intake'), lobeOf('exhaust')];
  return {
    intake,
    exhaust,
    lobeSeparation: valueOf('lobeSeparation'),
    groundInAdvance: valueOf('groundInAdvance'),
    contradictions,
    figures: figuresOf(card, facts, disputed, units, { intake, exhaust }),
    overlaps: intake.lines.flatMap((line) => {
      const other = exhaust.lines.find(({ key }) => key === line.key);
      return line.opens === undefined || other?.closes === undefined || line.height === null
        ? []
        : [{ height: line.height, crank: line.opens + other.closes, label: heightWords(line, units) }];
    }),
  };
}
