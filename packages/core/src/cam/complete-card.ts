import type { CompletedLobe, Fact } from './completed-lobe';
import type { LengthUnit } from '../units/length';
import { type CamCard, type LobeCard, VALVES, type Valve } from './card';
import { type CardRule, rulesOf } from './card-rules';
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
  readonly overlaps: readonly Overlap[];
}

/** Both valves open at one height, mm, or at that which the card leaves unsaid: crank degrees, and what it was worked out from. */
interface Overlap {
  readonly height: number | null;
  readonly crank: number;
  readonly label: string;
  readonly from: string;
}

/**
 * Overlap at every height that both lobes have: IVO + EVC; of advertised durations, whose height cards often leave unsaid, (intake + exhaust)/2 − 2·LSA.
 * Source: definition; the second is how the trade quotes it, common practice, no source.
 */
function overlapsOf(
  intake: CompletedLobe,
  exhaust: CompletedLobe,
  lobeSeparation: number | null,
  units: LengthUnit,
): Overlap[] {
  return intake.lines.flatMap((line): Overlap[] => {
    const other = exhaust.lines.find(({ key }) => key === line.key);
    const { height } = line;
    const label = height === null ? 'at the card’s own unstated height' : heightWords(line, units);
    if (line.opens !== undefined && other?.closes !== undefined)
      return [{ height, crank: line.opens + other.closes, label, from: 'IVO + EVC' }];
    if (height !== null || line.duration === undefined || other?.duration === undefined || lobeSeparation === null)
      return [];
    const crank = (line.duration + other.duration) / 2 - 2 * lobeSeparation;
    return [{ height, crank, label, from: 'both durations ÷ 2 − 2 × LSA' }];
  });
}

/** What the card prints, apart from what is disputed. */
function printed(card: CamCard, disputed: ReadonlySet<FigureKey>): Map<FigureKey, Fact> {
  const facts = new Map<FigureKey, Fact>();
  const given = (key: FigureKey, value: number | undefined): void => {
    if (value !== undefined && !disputed.has(key)) facts.set(key, { value, from: null });
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
  return facts;
}

/** Works out whatever follows, every rule once more whenever one has given something. Nothing printed is ever replaced. */
function follow(rules: readonly CardRule[], facts: Map<FigureKey, Fact>, disputed: ReadonlySet<FigureKey>): void {
  const use = ({ gives, needs, from, work }: CardRule): boolean => {
    if (facts.has(gives) || disputed.has(gives)) return false;
    const values = needs.flatMap((need) => facts.get(need)?.value ?? []);
    if (values.length < needs.length) return false;
    facts.set(gives, { value: work(values, facts), from });
    return true;
  };
  const [first, last] = [rules.filter((rule) => !rule.last), rules.filter((rule) => rule.last)];
  // Not `some`: every rule has its turn in every round.
  const round = (of: readonly CardRule[]): boolean => of.filter(use).length > 0;
  while (round(first) || round(last));
}

function lobeOf(valve: Valve, card: CamCard, facts: ReadonlyMap<FigureKey, Fact>): CompletedLobe {
  const valueOf = (name: string): number | null => facts.get(`${valve}.${name}`)?.value ?? null;
  const lines = (card[valve]?.timing ?? []).map((line) => {
    const on = (name: string): number | undefined => valueOf(`${name}@${lineKey(line)}`) ?? undefined;
    return {
      ...line,
      key: lineKey(line),
      assumed: line.height === null,
      duration: on('duration'),
      opens: on('opens'),
      closes: on('closes'),
    };
  });
  const figures = {
    lobeLift: valueOf('lobeLift'),
    valveLift: valueOf('valveLift'),
    ratio: valueOf('ratio'),
    centreline: valueOf('centreline'),
  };
  const fitted = curveOf(valve, { lines, ...figures }, card[valve] ?? {}, facts);
  return {
    ...figures,
    lines,
    curve: fitted?.lobe ?? null,
    placed: (figures.centreline ?? card[valve]?.centreline ?? null) !== null,
    shape: fitted?.shape ?? null,
  };
}

/**
 * Completes a card: whatever follows from what it prints, each figure with what it came from; and names what cannot all be right.
 * Figures in a contradiction are shown as printed, and nothing is worked out from them.
 * @param units in which lengths are put into words.
 * Identities of the trade (duration = opens + 180 + closes; LSA = (ICL + ECL)/2; ground-in advance = LSA − ICL): definitions.
 * @example completeCard({ intake: { timing: [{ height: 1.27, at: 'lobe', opens: 14, closes: 47 }] } }, 'in') // 241°, centre 106.5°
 */
export function completeCard(card: CamCard, units: LengthUnit): CompletedCard {
  const contradictions = findContradictions(card, units);
  const disputed = new Set(contradictions.flatMap(({ figures }) => figures));
  const facts = printed(card, disputed);
  follow(rulesOf(card, units), facts, disputed);
  const [intake, exhaust] = [lobeOf('intake', card, facts), lobeOf('exhaust', card, facts)];
  return {
    intake,
    exhaust,
    lobeSeparation: facts.get('lobeSeparation')?.value ?? null,
    groundInAdvance: facts.get('groundInAdvance')?.value ?? null,
    contradictions,
    figures: figuresOf(card, facts, disputed, units, { intake, exhaust }),
    overlaps: overlapsOf(intake, exhaust, facts.get('lobeSeparation')?.value ?? null, units),
  };
}
