import { checkFiringOrder, parseFiringOrder } from '@yosoku/core/crank/firing-order';
import { crankTrouble } from '@yosoku/core/crank/slider-crank';
import type { WheelRing } from '@yosoku/core/crank/wheel';
import type { Described } from '@yosoku/core/logbook/entry';
import type { Report } from '@yosoku/core/logbook/report';
import { type LengthUnit, formatLength, parseLength } from '@yosoku/core/units/length';

/** What engine it is, as typed. */
export type EngineForm = Record<
  'name' | 'cylinders' | 'firingOrder' | 'rotation' | 'ring' | 'sense' | 'units' | 'stroke' | 'rod',
  string
>;

export type EngineTrouble = Partial<Record<keyof EngineForm, string>>;

export const EMPTY_ENGINE: EngineForm = {
  name: '',
  cylinders: '',
  firingOrder: '',
  rotation: 'clockwise',
  ring: '0-180',
  sense: 'rising',
  units: 'in',
  stroke: '',
  rod: '',
};

/** The form as last kept. */
export function engineForm({ build }: Report): EngineForm {
  const { engine, wheel, units } = build;
  const length = (mm: number | null): string => (mm === null ? '' : formatLength(mm, units, 'dimension'));
  return {
    name: build.name,
    cylinders: String(engine.cylinders),
    firingOrder: engine.firingOrder.join('-'),
    rotation: engine.rotation,
    ring: wheel.ring,
    sense: wheel.ring === '0-360' ? wheel.sense : 'rising',
    units,
    stroke: length(engine.stroke),
    rod: length(engine.rod),
  };
}

const unitOf = (form: EngineForm): LengthUnit => (form.units === 'mm' ? 'mm' : 'in');
const lengthOf = (typed: string, form: EngineForm) => parseLength(typed, { family: 'dimension', unit: unitOf(form) });

/** A length as understood, to be echoed. */
export function echoLength(typed: string, form: EngineForm): string | undefined {
  const parsed = lengthOf(typed, form);
  return typed.trim() !== '' && parsed.ok ? parsed.understood : undefined;
}

/** What is wrong with each field, in words. */
export function engineProblems(form: EngineForm): EngineTrouble {
  const trouble: EngineTrouble = {};
  if (form.name.trim() === '') trouble.name = 'Give it a name that you will know it by.';
  else if (form.name.trim().length > 80) trouble.name = 'At most 80 characters.';
  const cylinders = Number(form.cylinders);
  if (!/^\d+$/.test(form.cylinders.trim()) || cylinders < 1 || cylinders > 24)
    trouble.cylinders = 'Type how many cylinders, 1 to 24.';
  else {
    const order = checkFiringOrder(parseFiringOrder(form.firingOrder), cylinders);
    if (cylinders > 1 && !order.ok)
      trouble.firingOrder =
        form.firingOrder.trim() === ''
          ? 'Type the firing order, like 1-3-4-2.'
          : `${order.problem.message} ${order.problem.remedy}`;
  }
  for (const name of ['stroke', 'rod'] as const) {
    const parsed = lengthOf(form[name], form);
    if (form[name].trim() === '') continue;
    if (!parsed.ok) trouble[name] = parsed.message;
    else if (parsed.mm === 0) trouble[name] = 'It cannot be 0. Leave it empty when it is not known.';
    else if (parsed.mm > (name === 'stroke' ? 1000 : 2000))
      trouble[name] = `${parsed.understood} is longer than any engine’s. Check the unit.`;
  }
  const [stroke, rod] = [lengthOf(form.stroke, form), lengthOf(form.rod, form)];
  if (!trouble.stroke && !trouble.rod && stroke.ok && rod.ok)
    trouble.rod = crankTrouble({ stroke: stroke.mm, rod: rod.mm }) ?? undefined;
  return trouble;
}

/** The form as the body of an entry. Call it only when nothing is wrong. */
export function readEngine(form: EngineForm): Omit<Described, 'replaces'> {
  const cylinders = Number(form.cylinders);
  const [stroke, rod] = [lengthOf(form.stroke, form), lengthOf(form.rod, form)];
  return {
    name: form.name.trim(),
    engine: {
      cylinders,
      firingOrder: cylinders === 1 ? [1] : parseFiringOrder(form.firingOrder),
      rotation: form.rotation === 'counter-clockwise' ? 'counter-clockwise' : 'clockwise',
      ...(stroke.ok ? { stroke: stroke.mm } : {}),
      ...(rod.ok ? { rod: rod.mm } : {}),
    },
    wheel: ringOf(form),
    units: unitOf(form),
  };
}

/** The ring that the form describes. */
export function ringOf({ ring, sense }: EngineForm): WheelRing {
  if (ring === '0-360') return { ring, sense: sense === 'falling' ? 'falling' : 'rising' };
  return ring === '0-90' ? { ring } : { ring: '0-180' };
}
