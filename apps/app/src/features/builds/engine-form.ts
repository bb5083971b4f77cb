import { checkFiringAngles } from '@yosoku/core/crank/firing';
import { checkFiringOrder, parseFiringOrder } from '@yosoku/core/crank/firing-order';
import { crankTrouble } from '@yosoku/core/crank/slider-crank';
import { type WheelRing, isSameRing } from '@yosoku/core/crank/wheel';
import type { Described } from '@yosoku/core/record/entry';
import type { Report } from '@yosoku/core/report/report';
import { type LengthUnit, type ParsedLength, parseLength, typedLength } from '@yosoku/core/units/length';
import { ENGINE, INSTRUMENTS, MOST_CYLINDERS, NAME_LENGTH, ROCKER_RATIO } from '@yosoku/core/record/entries/limits';

/** What engine it is, as typed. */
export type EngineForm = Record<
  | 'name'
  | 'cylinders'
  | 'firingOrder'
  | 'firingAngles'
  | 'rotation'
  | 'ring'
  | 'sense'
  | 'secondRing'
  | 'secondSense'
  | 'units'
  | 'stroke'
  | 'rod'
  | 'pinOffset'
  | 'offsetSide'
  | 'cams'
  | 'secondBank'
  | 'bore'
  | 'compression'
  | 'chamber'
  | 'ratioIntake'
  | 'ratioExhaust'
  | 'wheelDiameter'
  | 'graduation'
  | 'pointerGap'
  | 'resolution',
  string
>;

export type EngineTrouble = Partial<Record<keyof EngineForm, string>>;

export const EMPTY_ENGINE: EngineForm = {
  name: '',
  cylinders: '',
  firingOrder: '',
  firingAngles: '',
  rotation: 'clockwise',
  ring: '0-180',
  sense: 'rising',
  secondRing: 'none',
  secondSense: 'rising',
  units: 'in',
  stroke: '',
  rod: '',
  pinOffset: '',
  offsetSide: 'before',
  cams: 'single',
  secondBank: '',
  bore: '',
  compression: '',
  chamber: '',
  ratioIntake: '',
  ratioExhaust: '',
  wheelDiameter: '',
  graduation: '1',
  pointerGap: '',
  resolution: '',
};

/** The form as last kept. */
export function engineForm({ build }: Report): EngineForm {
  const { engine, wheel, units, instruments } = build;
  const length = (mm: number | null): string => (mm === null ? '' : typedLength(mm, units, 'dimension'));
  const fine = (mm: number | null): string => (mm === null ? '' : typedLength(mm, units));
  return {
    ...wheelForm({ wheel, rings: build.rings, instruments }, units),
    name: build.name,
    cylinders: String(engine.cylinders),
    firingOrder: engine.firingOrder.join('-'),
    rotation: engine.rotation,
    units,
    stroke: length(engine.stroke),
    rod: length(engine.rod),
    firingAngles: engine.firingAngles?.join(' ') ?? '',
    pinOffset: engine.pinOffset ? fine(Math.abs(engine.pinOffset)) : '',
    offsetSide: (engine.pinOffset ?? 0) > 0 ? 'after' : 'before',
    cams: engine.cams,
    secondBank: engine.secondBank === null ? '' : String(engine.secondBank),
    bore: length(engine.bore),
    ...compressionForm(engine.compression),
    ratioIntake: engine.rockerRatio ? String(engine.rockerRatio.intake) : '',
    ratioExhaust: engine.rockerRatio ? String(engine.rockerRatio.exhaust) : '',
  };
}

type WheelFields =
  'ring' | 'sense' | 'secondRing' | 'secondSense' | 'wheelDiameter' | 'graduation' | 'pointerGap' | 'resolution';

/** One of the two is given, or none. */
const compressionForm = (
  compression: Report['build']['engine']['compression'],
): Pick<EngineForm, 'compression' | 'chamber'> => ({
  compression: compression?.given === 'ratio' ? String(compression.ratio) : '',
  chamber: compression?.given === 'chamber' ? String(compression.volume) : '',
});

/** A wheel and what is measured with, as they would be typed. */
export function wheelForm(
  { wheel, rings = [], instruments = {} }: WheelAtHand,
  units: LengthUnit,
): Pick<EngineForm, WheelFields> {
  const [second] = rings;
  const length = (mm: number | null | undefined, family: 'dimension' | 'lift'): string =>
    mm == null ? '' : typedLength(mm, units, family);
  return {
    ring: wheel.ring,
    sense: wheel.ring === '0-360' ? wheel.sense : 'rising',
    secondRing: second?.ring ?? 'none',
    secondSense: second?.ring === '0-360' ? second.sense : 'rising',
    wheelDiameter: length(instruments.wheelDiameter, 'dimension'),
    graduation: String(instruments.graduation ?? 1),
    pointerGap: length(instruments.pointerGap, 'lift'),
    resolution: length(instruments.resolution, 'lift'),
  };
}

interface WheelAtHand {
  readonly wheel: WheelRing;
  readonly rings?: readonly WheelRing[] | undefined;
  readonly instruments?:
    | Readonly<Record<'wheelDiameter' | 'graduation' | 'pointerGap' | 'resolution', number | null>>
    | Described['instruments'];
}

const unitOf = (form: EngineForm): LengthUnit => (form.units === 'mm' ? 'mm' : 'in');
const lengthOf = (typed: string, form: EngineForm) => parseLength(typed, { family: 'dimension', unit: unitOf(form) });
const liftOf = (typed: string, form: EngineForm) => parseLength(typed, { family: 'lift', unit: unitOf(form) });

/** The small lengths of the form and the most that each may be, mm. */
const FINE = { ...INSTRUMENTS, pinOffset: ENGINE.pinOffset };
/** "0 90 360 450", degrees after the first of the firing order. */
const anglesOf = (typed: string): number[] =>
  typed
    .split(/[\s,;]+/)
    .filter((part) => part !== '')
    .map(Number);

/** A length as understood, to be echoed. */
export function echoLength(
  typed: string,
  form: EngineForm,
  family: 'dimension' | 'lift' = 'dimension',
): string | undefined {
  const parsed = family === 'dimension' ? lengthOf(typed, form) : liftOf(typed, form);
  return typed.trim() !== '' && parsed.ok ? parsed.understood : undefined;
}

/** The pin offset with its sign, mm: positive toward the side to which the crankpin moves after TDC. */
function offsetOf(form: EngineForm): number | undefined {
  const parsed = liftOf(form.pinOffset, form);
  if (!parsed.ok || parsed.mm === 0) return undefined;
  return form.offsetSide === 'after' ? parsed.mm : -parsed.mm;
}

const isWithin = (value: number, [from, to]: readonly [number, number]): boolean => value >= from && value <= to;

const numberOf = (typed: string): number => Number(typed.trim().replace(',', '.'));

/** What is wrong with each field, in words. */
export function engineProblems(form: EngineForm): EngineTrouble {
  const trouble: EngineTrouble = {};
  if (form.name.trim() === '') trouble.name = 'Give it a name that you will know it by.';
  else if (form.name.trim().length > NAME_LENGTH) trouble.name = `At most ${NAME_LENGTH} characters.`;
  const cylinders = Number(form.cylinders);
  if (!/^\d+$/.test(form.cylinders.trim()) || cylinders < 1 || cylinders > MOST_CYLINDERS)
    trouble.cylinders = `Type how many cylinders, 1 to ${MOST_CYLINDERS}.`;
  else {
    const order = checkFiringOrder(parseFiringOrder(form.firingOrder), cylinders);
    if (cylinders > 1 && !order.ok)
      trouble.firingOrder =
        form.firingOrder.trim() === ''
          ? 'Type the firing order, like 1-3-4-2.'
          : `${order.problem.message} ${order.problem.remedy}`;
  }
  for (const name of ['stroke', 'rod', 'bore'] as const) {
    const parsed = lengthOf(form[name], form);
    if (form[name].trim() === '') continue;
    if (!parsed.ok) trouble[name] = parsed.message;
    else if (parsed.mm === 0) trouble[name] = 'It cannot be 0. Leave it empty when it is not known.';
    else if (parsed.mm > ENGINE[name])
      trouble[name] = `${parsed.understood} is longer than any engine’s. Check the unit.`;
  }
  if (form.firingAngles.trim() !== '' && !trouble.cylinders) {
    const angles = checkFiringAngles(anglesOf(form.firingAngles), cylinders);
    if (!angles.ok) trouble.firingAngles = `${angles.problem.message} ${angles.problem.remedy}`;
  }
  for (const name of ['pinOffset', 'pointerGap', 'resolution'] as const) {
    const parsed = liftOf(form[name], form);
    if (form[name].trim() === '') continue;
    if (!parsed.ok) trouble[name] = parsed.message;
    else if (parsed.mm > FINE[name]) trouble[name] = `${parsed.understood} is too much here. Check the unit.`;
    else if (parsed.mm === 0 && name !== 'pinOffset')
      trouble[name] = 'It cannot be 0. Leave it empty when it is not known.';
  }
  const diameter = lengthOf(form.wheelDiameter, form);
  if (form.wheelDiameter.trim() !== '')
    if (!diameter.ok) trouble.wheelDiameter = diameter.message;
    else if (diameter.mm < 50 || diameter.mm > INSTRUMENTS.wheelDiameter)
      trouble.wheelDiameter = 'Wheels measure 50 to 1000 mm, 2 to 40 in.';
  for (const name of ['ratioIntake', 'ratioExhaust'] as const) {
    const ratio = numberOf(form[name]);
    if (form[name].trim() !== '' && !isWithin(ratio, ROCKER_RATIO))
      trouble[name] = `A rocker ratio lies between ${ROCKER_RATIO.join(' and ')}, like 1.5.`;
  }
  const [compression, chamber] = [numberOf(form.compression), numberOf(form.chamber)];
  if (form.compression.trim() !== '' && !isWithin(compression, ENGINE.compression))
    trouble.compression = `A compression ratio lies between ${ENGINE.compression.join(' and ')}, like 10.5.`;
  if (form.chamber.trim() !== '')
    if (!(chamber > 0 && chamber <= ENGINE.chamber)) trouble.chamber = `A volume in cm³, up to ${ENGINE.chamber}.`;
    else if (form.compression.trim() !== '') trouble.chamber = 'Give the ratio or the chamber, not both.';
  const graduation = Number(form.graduation);
  if (!isWithin(graduation, INSTRUMENTS.graduation))
    trouble.graduation = `Degrees from line to line, ${INSTRUMENTS.graduation.join(' to ')}.`;
  const bank = Number(form.secondBank);
  if (
    form.cams === 'twin' &&
    form.secondBank.trim() !== '' &&
    !(Number.isInteger(bank) && bank >= 2 && bank <= Number(form.cylinders))
  )
    trouble.secondBank = 'Give a cylinder of the second bank: a number from 2 up to the count of cylinders.';
  const [stroke, rod] = [lengthOf(form.stroke, form), lengthOf(form.rod, form)];
  if (!trouble.stroke && !trouble.rod && stroke.ok && rod.ok)
    trouble.rod = crankTrouble({ stroke: stroke.mm, rod: rod.mm, pinOffset: offsetOf(form) ?? 0 }) ?? undefined;
  return trouble;
}

/** A field of an entry, left out where nothing is known. `given('rod', undefined)` is `{}`. */
const given = <Name extends string, Value>(name: Name, value: Value | undefined): Partial<Record<Name, Value>> =>
  value === undefined ? {} : ({ [name]: value } as Record<Name, Value>);

/** What a text that may be empty stands for. */
const ifTyped = <Value>(typed: string, read: (typed: string) => Value): Value | undefined =>
  typed.trim() === '' ? undefined : read(typed);

const mmOf = (parsed: ParsedLength): number | undefined => (parsed.ok ? parsed.mm : undefined);

/** A single figure holds for both valves. */
function ratioOf(form: EngineForm): { readonly intake: number; readonly exhaust: number } | undefined {
  const [intake, exhaust] = [form.ratioIntake || form.ratioExhaust, form.ratioExhaust || form.ratioIntake];
  const ratio = { intake: numberOf(intake), exhaust: numberOf(exhaust) };
  return ratio.intake > 0 ? ratio : undefined;
}

const compressionOf = (form: EngineForm): Described['engine']['compression'] =>
  ifTyped(form.compression, (typed) => ({ given: 'ratio' as const, ratio: numberOf(typed) })) ??
  ifTyped(form.chamber, (typed) => ({ given: 'chamber' as const, volume: numberOf(typed) }));

/**
 * The form as the body of an entry. Call it only when nothing is wrong.
 * @param before the further rings as they were described: the form asks for one, and a third, which a file can have brought, stays.
 */
export function readEngine(form: EngineForm, before: readonly WheelRing[] = []): Omit<Described, 'replaces'> {
  const cylinders = Number(form.cylinders);
  const rings = furtherRings(form, before);
  const twin = form.cams === 'twin';
  return {
    name: form.name.trim(),
    engine: {
      cylinders,
      firingOrder: cylinders === 1 ? [1] : parseFiringOrder(form.firingOrder),
      rotation: form.rotation === 'counter-clockwise' ? 'counter-clockwise' : 'clockwise',
      ...given('stroke', mmOf(lengthOf(form.stroke, form))),
      ...given('rod', mmOf(lengthOf(form.rod, form))),
      ...given('pinOffset', offsetOf(form)),
      ...(twin ? { cams: 'twin' as const, ...given('secondBank', ifTyped(form.secondBank, Number)) } : {}),
      ...given('rockerRatio', ratioOf(form)),
      ...given('bore', mmOf(lengthOf(form.bore, form))),
      ...given('compression', compressionOf(form)),
      ...given('firingAngles', ifTyped(form.firingAngles, anglesOf)),
    },
    wheel: ringOf(form),
    ...(rings.length > 0 ? { rings } : {}),
    units: unitOf(form),
    instruments: {
      ...given('wheelDiameter', mmOf(lengthOf(form.wheelDiameter, form))),
      graduation: Number(form.graduation),
      ...given('pointerGap', mmOf(liftOf(form.pointerGap, form))),
      ...given('resolution', mmOf(liftOf(form.resolution, form))),
    },
  };
}

/** The ring that the form describes. */
export const ringOf = ({ ring, sense }: EngineForm): WheelRing => ringNamed(ring, sense) ?? { ring: '0-180' };

/** The other numbers on the wheel, or null. Where both go all round, they count opposite ways. */
export function secondRingOf(form: EngineForm): WheelRing | null {
  const first = ringOf(form);
  const opposite = first.ring === '0-360' && (first.sense === 'rising' ? 'falling' : 'rising');
  const second = ringNamed(form.secondRing, opposite || form.secondSense);
  return second && isSameRing(second, first) ? null : second;
}

function furtherRings(form: EngineForm, before: readonly WheelRing[]): WheelRing[] {
  const second = secondRingOf(form);
  const named = [ringOf(form), ...(second ? [second] : [])];
  return [...named, ...before.slice(1).filter((each) => !named.some((ring) => isSameRing(ring, each)))].slice(1);
}

function ringNamed(ring: string, sense: string): WheelRing | null {
  if (ring === '0-360') return { ring, sense: sense === 'falling' ? 'falling' : 'rising' };
  return ring === '0-90' || ring === '0-180' ? { ring } : null;
}
