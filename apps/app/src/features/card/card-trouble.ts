import { VALVES } from '@yosoku/core/cam/card';
import { rimTrouble, roundOf } from '@yosoku/core/crank/rim';
import { CARD, MOST_LIFT, NAME_LENGTH, ROCKER_RATIO, TARGET } from '@yosoku/core/record/entries/limits';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { type LengthUnit, parseLength } from '@yosoku/core/units/length';
import { type CardField, type CardForm, TDC_ROWS, TIMING_ROWS, type TimingRow, fieldOf, hasTiming } from './typed-card';
import { ALONG_RIM, eventFigure, figure } from './event-figure';

type Trouble = Partial<Record<CardField, string>>;

/** Once round the flywheel as typed, mm; null where it is not, or cannot be. */
export function flywheelOf({ flywheel }: CardForm, unit: LengthUnit): number | null {
  const parsed = parseLength(flywheel, { family: 'dimension', unit });
  if (!parsed.ok) return null;
  const round = roundOf(parsed.mm);
  return rimTrouble(round) === null ? Math.round(round * 1e4) / 1e4 : null;
}

/** An event along the rim as degrees, to be echoed: "21.49°". Nothing for what is typed in degrees. */
export function eventEcho(form: CardForm, field: CardField, unit: LengthUnit): string | undefined {
  const which = /(opens|closes)\d$/.exec(field)?.[1];
  if (which === undefined || !ALONG_RIM.test(form[field])) return undefined;
  const value = eventFigure(form[field], which as 'opens' | 'closes', flywheelOf(form, unit));
  return Number.isNaN(value) ? undefined : computedDegrees(value, 2);
}

const outside = (value: number, typed: string, from: number, to: number, what: string): string | undefined => {
  if (Number.isNaN(value)) return `Type ${what} in figures.`;
  return value < from || value > to
    ? `${typed.trim()} cannot be ${what}: expected ${from} to ${to}.`.replaceAll('-', '−')
    : undefined;
};

/** What is wrong with each field, in words. Empty fields that may stay empty are not wrong. */
export function cardProblems(form: CardForm, unit: LengthUnit): Trouble {
  const trouble: Trouble = {};
  const rim = flywheelOf(form, unit);
  const angle = (name: CardField, from: number, to: number, what: string): void => {
    if (form[name].trim() !== '') trouble[name] = outside(figure(form[name]), form[name], from, to, what);
  };
  const length = (name: CardField, most: number, what: string, least: 'zero' | 'more' = 'more'): void => {
    if (form[name].trim() === '') return;
    const parsed = parseLength(form[name], { family: 'lift', unit });
    if (!parsed.ok) trouble[name] = parsed.message;
    else if (parsed.mm === 0 && least === 'more') trouble[name] = `${what} of 0 lifts no valve.`;
    else if (parsed.mm > most)
      trouble[name] = `${parsed.understood} is more than any ${what.toLowerCase()}. Check the unit.`;
  };
  for (const valve of VALVES) {
    angle(fieldOf(valve, 'centreline'), ...CARD.centreline, `an ${valve} centreline`);
    length(fieldOf(valve, 'lobeLift'), MOST_LIFT, 'Lobe lift');
    length(fieldOf(valve, 'valveLift'), MOST_LIFT, 'Valve lift');
    angle(fieldOf(valve, 'ratio'), ...ROCKER_RATIO, 'a rocker ratio');
    length(fieldOf(valve, 'lashHot'), CARD.lash, 'Lash', 'zero');
    length(fieldOf(valve, 'lashCold'), CARD.lash, 'Lash', 'zero');
    for (const row of TIMING_ROWS) {
      angle(fieldOf(valve, `duration${row}`), ...CARD.duration, 'a duration');
      for (const which of ['opens', 'closes'] as const) {
        const name = fieldOf(valve, `${which}${row}`);
        if (form[name].trim() === '') continue;
        const needsRim = ALONG_RIM.test(form[name]) && rim === null;
        trouble[name] = needsRim
          ? 'Inches along the rim need the diameter of the flywheel: give it below.'
          : outside(eventFigure(form[name], which, rim), form[name], ...CARD.event, 'a valve event');
      }
    }
    for (const row of TDC_ROWS) {
      const [centreline, lift] = [fieldOf(valve, `tdcCentreline${row}`), fieldOf(valve, `tdcLift${row}`)] as const;
      angle(centreline, ...CARD.centreline, 'a centreline');
      length(lift, MOST_LIFT, 'Lift at TDC', 'zero');
      if (form[lift].trim() !== '' && form[centreline].trim() === '')
        trouble[centreline] = 'For which centreline is it?';
    }
  }
  const heights = new Map<string, TimingRow>();
  for (const row of TIMING_ROWS) {
    length(`height${row}`, CARD.height, 'Checking height', 'zero');
    if (!hasTiming(form, row)) continue;
    const parsed = parseLength(form[`height${row}`], { family: 'lift', unit });
    const key = `${parsed.ok ? parsed.mm : 'unstated'} ${form[`at${row}`]}`;
    if (heights.has(key)) trouble[`height${row}`] = 'This checking height stands twice.';
    heights.set(key, row);
  }
  if (form.flywheel.trim() !== '' && rim === null) {
    const parsed = parseLength(form.flywheel, { family: 'dimension', unit });
    trouble.flywheel = parsed.ok ? (rimTrouble(roundOf(parsed.mm)) ?? undefined) : parsed.message;
  }
  angle('lsa', ...CARD.lobeSeparation, 'an LSA');
  angle('groundIn', ...CARD.groundInAdvance, 'a ground-in advance');
  if (form.kind === 'ahead-of-card')
    trouble.advance = outside(figure(form.advance), form.advance, ...TARGET.advance, 'an advance');
  if (form.kind === 'centreline')
    trouble.wanted = outside(figure(form.wanted), form.wanted, ...CARD.centreline, 'an intake centreline');
  if (form.exKind === 'ahead-of-card')
    trouble.exAdvance = outside(figure(form.exAdvance), form.exAdvance, ...TARGET.advance, 'an advance');
  if (form.exKind === 'centreline')
    trouble.exWanted = outside(figure(form.exWanted), form.exWanted, ...CARD.centreline, 'an exhaust centreline');
  trouble.limit = outside(figure(form.limit), form.limit, ...TARGET.limit, 'a limit');
  if (form.name.length > NAME_LENGTH) trouble.name = `At most ${NAME_LENGTH} characters.`;
  return Object.fromEntries(Object.entries(trouble).filter(([, words]) => words !== undefined));
}
