import { READ_METHODS } from '../measure/read-methods';
import { EVENT_NAMES } from '../cam/card';
import { crankDeg, toCam } from '../units/angle';
import { decimal, shortDecimal } from '../units/decimal';
import { computedDegrees } from '../units/degrees';
import { signed } from '../timing-set/kinds/kind';
import { type LengthUnit, formatLength } from '../units/length';
import type { NextRound } from '../verdict/next-reading';
import {
  type Basis,
  type Beside,
  type First,
  type Judged,
  ROUNDING,
  type Verdict,
  gravest,
  narrows,
} from '../verdict/verdict';
import { lateOrEarly } from './place-words';
import { AFTER_MOVED, checkOf, faultWords, movedWords } from './fault-words';
import type { Speech } from './speech';

/** A verdict in the words of a foreman. */
export interface ToldVerdict extends Pick<Verdict, 'kind' | 'delta' | 'expanded' | 'move'> {
  readonly headline: string;
  readonly action: string;
  /** What the action begins with: what has to be done before the cam is moved, or left. */
  readonly first: readonly First[];
  readonly beside: readonly string[];
  readonly why: string;
}

/** Readings that chance makes so unlike less than once in a thousand times. */
const HARDLY_EVER = 0.001;
const CAM_WORDS = { single: 'cam', intake: 'intake cam', exhaust: 'exhaust cam' } as const;

/** The parts that the sentences of a verdict are made of. */
interface Parts {
  readonly cam: string;
  /** "2.5°", and "2.5° late, retarded". */
  readonly size: string;
  readonly away: string;
  readonly within: string;
  /** "The cam sits 2.5° late, retarded" */
  readonly sits: string;
}

function partsOf({ cam: which, bank, delta, expanded, limit }: Judged): Parts {
  const off = Math.abs(delta);
  const cam = bank ? `${CAM_WORDS[which]} of bank ${bank}` : CAM_WORDS[which];
  const size = sizeAgainst(off, limit);
  const away = `${size} ${lateOrEarly(delta)}`;
  const sits = off < 0.05 ? `The ${cam} sits on the target` : `The ${cam} sits ${away}`;
  return { cam, size, away, within: `±${computedDegrees(Math.max(expanded, 0.05))}`, sits };
}

/**
 * A verdict in sentences.
 * @example { because: 'outside', delta: -2.5, … } // "The cam sits 2.5° late, retarded, ±0.6°." "Advance it 2.5°: turn the cam the way it runs."
 */
export function tellVerdict(verdict: Verdict, speech: Speech): ToldVerdict {
  const { kind, delta, expanded, move, because, judged } = verdict;
  const parts = partsOf(judged);
  const says = WORDS[because](judged, parts, speech);
  const later =
    judged.cam === 'exhaust'
      ? 'A smaller exhaust centreline is a later cam.'
      : 'A larger intake centreline is a later cam.';
  const why = `${basisWords(judged.basis)}; limit ±${shortDecimal(judged.limit, 2)}°.${judged.basis.scale ? '' : ` ${later}`}`;
  const rests = because === 'way-unknown' || because === 'too-coarse' || because === 'inside' || because === 'outside';
  return {
    kind,
    delta,
    expanded,
    move,
    ...says,
    first: kind === 'move' || kind === 'leave' ? judged.first : [],
    beside: rests ? judged.beside.map((each) => BESIDE[each]) : [],
    why:
      because === 'outside'
        ? `${why} ${parts.size} at the crank is ${decimal(toCam(crankDeg(Math.abs(delta))), 2)}° at the cam.`
        : why,
  };
}

type Says = Pick<ToldVerdict, 'headline' | 'action'>;

const WORDS: Readonly<Record<Verdict['because'], (judged: Judged, parts: Parts, speech: Speech) => Says>> = {
  'zero-unproved': (_, { sits }) => ({
    headline: 'Do not move it yet: TDC is not proved.',
    action: `${sits}. But that counts from a zero that has not been proved. Go back to Zero and prove it.`,
  }),
  moved: ({ moved }, { cam }) => ({
    headline: `Do not move the ${cam} yet: ${movedWords(moved ?? 0)}.`,
    action: AFTER_MOVED,
  }),
  'not-weighed': (_, { cam }) => ({
    headline: `Do not move the ${cam} yet: the readings could not be weighed together.`,
    action: 'Each is shown with what it says by itself. Read the centreline or the events once more.',
  }),
  fault: (judged, { cam }, speech) => accused(judged, cam, speech),
  disagree: ({ chance, worst }, { cam }, { label }) => {
    const words = worst && label(worst);
    return {
      headline: `Do not move the ${cam} yet: the readings do not agree.`,
      action: `By chance they differ this much less than once in ${chance < HARDLY_EVER ? 'a thousand' : 'two hundred'} times. ${words ? `The reading “${words}” fits worst: read it again` : 'Read them again'}, always coming forward, and undo what does not belong.`,
    };
  },
  'target-far': ({ delta, ahead }, { cam, size }) => ({
    headline: `Do not move the ${cam}: its target is ${size} away, and no timing set reaches that far.`,
    action: `It sits ${computedDegrees(Math.abs(delta + (ahead ?? 0)))} from its card. Check the target at Card.`,
  }),
  'not-believable': (_, { cam, away }) => ({
    headline: `Do not move the ${cam}: ${away}, is not believable.`,
    action:
      'No ordinary drive is that far out. Check that it was the right lobe, the side of the wheel, the card, and that the timing marks are not a tooth out.',
  }),
  'repeats-apart': ({ spread }, { cam }) => ({
    headline: `Do not move the ${cam} yet: your repeats differ by ${computedDegrees(spread)}.`,
    action: 'Measure it again, always coming forward, and undo the reading that does not belong.',
  }),
  'way-unknown': (judged, { cam, away, within }, { units }) => ({
    headline: `Do not move the ${cam} yet: ${away}, but only known to ${within}.`,
    action: `That is too uncertain to say which way to move it. ${againWords(judged, units)}`,
  }),
  'too-coarse': (judged, { cam, away, within }, { units }) => ({
    headline: `Measure the ${cam} again: ${isOnTarget(judged) ? 'on the target' : away}, but only known to ${within}.`,
    action: `That is too coarse for a limit of ±${shortDecimal(judged.limit, 2)}°. ${againWords(judged, units)}`,
  }),
  doubted: (judged, { cam, away }, speech) => ({
    headline: `Do not move the ${cam} yet: ${isOnTarget(judged) ? 'on the target' : away}, but something may be wrong.`,
    action: doubtWords(judged, speech),
  }),
  inside: (judged, { sits, within, away }) => {
    const wide = judged.expanded > judged.limit + ROUNDING;
    return {
      headline: `${sits}, ${within}.`,
      action: `${isOnTarget(judged) ? 'That' : `${away},`} is inside your limit of ±${shortDecimal(judged.limit, 2)}°. ${afterFirst(judged, 'Leave it.', 'leave it.')}${wide ? ` It is known to ${within} only, so it may lie just outside.` : ''}`,
    };
  },
  outside: (judged, { sits, within, size }) => {
    const cure = judged.delta > 0 ? CURE.early : CURE.late;
    const how = `${size}: turn the cam ${cure.turn}.`;
    return {
      headline: `${sits}, ${within}.`,
      action: afterFirst(judged, `${cure.starts} ${how}`, `${cure.goesOn} ${how}`),
    };
  },
};

/** What is to be done, after what has to be done first: a cam that is left on a reading that nobody looked at again can be as wrong as one that is moved. */
const afterFirst = (judged: Judged, starts: string, goesOn: string): string =>
  judged.first.length === 0
    ? starts
    : `First ${judged.first.map((each) => FIRST[each](judged)).join(', and ')}. Then ${goesOn}`;

/** What cures a cam that sits early or late; a sentence starts with it, or goes on to it. */
const CURE = {
  early: { starts: 'Retard it', goesOn: 'retard it', turn: 'against the way it runs' },
  late: { starts: 'Advance it', goesOn: 'advance it', turn: 'the way it runs' },
} as const;

const isOnTarget = ({ delta }: Judged): boolean => Math.abs(delta) < 0.05;

/** What would narrow it. */
function againWords(judged: Judged, units: LengthUnit): string {
  if (!judged.next) return 'Measure it by a finer method, or more often.';
  return narrows(judged) ? nextWords(judged.next, units) : 'Reading the same again would hardly help.';
}

/** What to read next, and what for. */
function nextWords({ view, method, valve, height, expanded }: NextRound, units: LengthUnit): string {
  const at = height === null ? null : formatLength(height, units);
  return `Read ${READ_METHODS[method].named(valve, at)} ${view === null ? 'too' : 'again'}: that would bring it to about ±${computedDegrees(expanded)}.`;
}

const BESIDE: Readonly<Record<Beside, string>> = {
  'nothing-moved': 'That is so if nothing has moved since TDC: the closing check tells.',
  'one-pair': 'One pair alone shows no misreading.',
  'card-contradicts':
    'The card’s centreline and its events do not belong together. Like is compared with like here: a lobe read both ways would tell whether the card is right.',
  'card-by-events':
    'If the card counts its centreline by the events, a leaning lobe shifts this by up to 2°: opening and closing, read once, would tell.',
  'card-meaning':
    'It is that wide because it is not stated what the card’s centreline is the middle of. State it at Card.',
};

/** To stand after "First". */
const FIRST: Readonly<Record<First, (judged: Judged) => string>> = {
  'read-pair': () => 'read the pair once more',
  'read-both-ways': ({ oneSided: [only, other] }) =>
    `read both the centreline and the events of ${other ? 'both lobes' : `the ${only} lobe`}`,
  'closing-check': () => 'make the closing check',
};

/** What is said where a fault explains the readings: the likeliest, the check that tells, and what the readings cannot tell from it. */
function accused({ named }: Judged, cam: string, speech: Speech): Says {
  const [likely, ...others] = named;
  if (!likely) throw new Error('nothing is accused without a fault');
  const words = faultWords(likely, speech);
  if (others.length === 0 && likely.fault === 'wrong-cam')
    return { headline: `Do not fit it: most likely ${words}.`, action: checkOf(likely) };
  if (others.length === 0 && likely.fault === 'lsa-off')
    return { headline: `Moving the ${cam} cannot cure it: most likely ${words}.`, action: checkOf(likely) };
  const also =
    others.length > 0
      ? ` It may also be that ${others.map((each) => faultWords(each, speech)).join('; or that ')}.`
      : '';
  return { headline: `Do not move the ${cam} yet: most likely ${words}.`, action: `${checkOf(likely)}${also}` };
}

/** What may have happened, and what tells: the closing check first where it can, since it is quick. */
function doubtWords({ doubted, closingDue }: Judged, speech: Speech): string {
  const checked = closingDue && doubted.some(({ fault }) => fault === 'wheel-slipped');
  const [likely] = doubted.filter(({ fault }) => !checked || fault !== 'wheel-slipped');
  const may = `It may be that ${doubted.map((each) => faultWords(each, speech)).join('; or that ')}.`;
  const after = likely ? ` ${checkOf(likely)}` : '';
  return checked ? `${may} Make the closing check: it tells whether the wheel moved.${after}` : `${may}${after}`;
}

/** What a verdict rests on and what it was compared with, in words. */
function basisWords({ rule, count, against, contradicted, scale }: Basis): string {
  if (scale)
    return `From its angle in the maker’s own scale, ${signed(scale.shows)}, against ${signed(scale.nominal)} ±${shortDecimal(scale.tolerance, 2)}`;
  const from =
    rule !== null
      ? `By the rule of the shop from ${READ_METHODS[rule].short}`
      : count <= 1
        ? 'From one measurement'
        : `From ${count} measurements (the more exact count more)`;
  const compared =
    against === null
      ? 'the card'
      : `${EVENT_NAMES[against.valve].centreline} ${Math.round(against.centreline * 100) / 100}°`;
  return `${from}, against ${compared}${contradicted ? '; what the card contradicts itself about is left out' : ''}`;
}

/**
 * One verdict out of those of the cams: the gravest speaks, and where none forbids a move, each has its say.
 * @param names of the cams, in the order of their verdicts.
 */
export function tellTogether(verdicts: readonly ToldVerdict[], names: readonly string[]): ToldVerdict | null {
  const first = gravest(verdicts);
  if (!first || verdicts.length < 2) return first;
  if (first.kind !== 'move' && first.kind !== 'leave') return first;
  const all = verdicts.map((verdict, at) => ({ ...verdict, name: names[at] ?? '' }));
  // Of four cams only those that are to be moved are spoken of one by one.
  const moving = all.filter(({ kind }) => kind === 'move');
  const spoken = verdicts.length > 2 && moving.length > 0 ? moving : all;
  const rest = all.length - spoken.length;
  const others = rest === 0 ? '' : ` The ${rest === 1 ? 'other sits' : `other ${rest} sit`} inside the limit.`;
  return {
    ...first,
    headline: `${spoken.map(({ headline }) => headline).join(' ')}${others}`,
    action: spoken.map(({ name, action }) => `${name}: ${action}`).join(' '),
    first: [...new Set(spoken.flatMap((each) => each.first))],
    beside: [...new Set(spoken.flatMap(({ beside }) => beside))],
    why: all.map(({ name, why }) => `${name}: ${why}`).join(' '),
  };
}

/** One decimal, or two where one would read as the limit itself although the value is over it. */
function sizeAgainst(size: number, limit: number): string {
  const blurred = size > limit + ROUNDING && decimal(size, 1) === decimal(limit, 1);
  return computedDegrees(size, blurred ? 2 : 1);
}
