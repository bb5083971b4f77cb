import { z } from 'zod';
import { isWellFormed } from '../units/text';
import { type HardwareKind, type Question, type Reach, signed } from './kinds/kind';
import { bushings } from './kinds/bushings';
import { eccentric } from './kinds/eccentric';
import { holeCircle } from './kinds/hole-circle';
import { holeSets } from './kinds/hole-sets';
import { keyways } from './kinds/keyways';
import { offsetDowel } from './kinds/offset-dowel';
import { offsetKey } from './kinds/offset-key';
import { phaser } from './kinds/phaser';
import { slottedPulley } from './kinds/slotted-pulley';
import { taper } from './kinds/taper';
import { toothJump } from './kinds/tooth-jump';

/** Every kind of hardware that moves a cam. A new one is a file in `kinds/`, a line here and one in the schema below. */
export const HARDWARE_KINDS = {
  keyways,
  bushings,
  'offset-dowel': offsetDowel,
  'offset-key': offsetKey,
  eccentric,
  'slotted-pulley': slottedPulley,
  'hole-circle': holeCircle,
  'hole-sets': holeSets,
  taper,
  'tooth-jump': toothJump,
  phaser,
} as const;

export type HardwareKindName = keyof typeof HARDWARE_KINDS;
export const HARDWARE_KIND_NAMES = Object.keys(HARDWARE_KINDS) as [HardwareKindName, ...HardwareKindName[]];

/** Timing hardware as its maker describes it. */
export const hardwareSchema = z
  .discriminatedUnion('kind', [
    keyways.body.extend({ kind: z.literal('keyways') }),
    bushings.body.extend({ kind: z.literal('bushings') }),
    offsetDowel.body.extend({ kind: z.literal('offset-dowel') }),
    offsetKey.body.extend({ kind: z.literal('offset-key') }),
    eccentric.body.extend({ kind: z.literal('eccentric') }),
    slottedPulley.body.extend({ kind: z.literal('slotted-pulley') }),
    holeCircle.body.extend({ kind: z.literal('hole-circle') }),
    holeSets.body.extend({ kind: z.literal('hole-sets') }),
    taper.body.extend({ kind: z.literal('taper') }),
    toothJump.body.extend({ kind: z.literal('tooth-jump') }),
    phaser.body.extend({ kind: z.literal('phaser') }),
  ])
  .superRefine((hardware, context) => {
    const trouble = tableOf(hardware).trouble(hardware);
    if (trouble) context.addIssue({ code: 'custom', path: [trouble.field], message: trouble.message });
  })
  .describe('Timing hardware, as its maker stamps it.');

export type Hardware = z.infer<typeof hardwareSchema>;

type KeyOfAny<T> = T extends unknown ? keyof T : never;
/** What one kind or another has a field for. */
export type HardwareField = Exclude<KeyOfAny<Hardware>, 'kind'>;
/** What is asked of a kind, in this order. */
export const questionsOf = (kind: HardwareKindName): readonly Question<HardwareField>[] => HARDWARE_KINDS[kind].asks;

/** Where hardware stands: at one of its marks, or at a figure of its own scale. */
export const settingSchema = z
  .union([
    z.strictObject({ mark: z.string().min(1).max(40).refine(isWellFormed) }),
    z.strictObject({ at: z.number().min(-360).max(360).describe('In its own scale.') }),
  ])
  .describe('A mark of the hardware, or a figure of its own scale.');
export type Setting = z.infer<typeof settingSchema>;

/** The row of the table that a piece of hardware belongs to. The kind says which body it has. */
export const tableOf = (hardware: Hardware): HardwareKind<z.ZodObject> =>
  HARDWARE_KINDS[hardware.kind] as unknown as HardwareKind<z.ZodObject>;

/** Hardware is asked for its positions at each of them: laid out once. */
const reaches = new WeakMap<Hardware, Reach & { readonly advances: ReadonlyMap<string, number> }>();

function laidOut(hardware: Hardware) {
  const known = reaches.get(hardware);
  if (known) return known;
  const reach = tableOf(hardware).reach(hardware);
  const marks = reach.kind === 'marks' ? reach.positions : [];
  const fresh = { ...reach, advances: new Map(marks.map(({ mark, advance }) => [mark, advance])) };
  reaches.set(hardware, fresh);
  return fresh;
}

/** What it can be put to. */
export const reachOf = (hardware: Hardware): Reach => laidOut(hardware);

/**
 * How far a setting puts the cam ahead by its label, crank degrees.
 * @returns null where the hardware has no such mark, or the figure is outside its range.
 */
export function advanceOfSetting(hardware: Hardware, setting: Setting): number | null {
  const reach = laidOut(hardware);
  if (reach.kind === 'marks') return 'mark' in setting ? (reach.advances.get(setting.mark) ?? null) : null;
  if (!('at' in setting) || setting.at < reach.from - 1e-9 || setting.at > reach.to + 1e-9) return null;
  return setting.at * reach.perUnit;
}

/** A setting as it is called at the engine: "the +4 keyway", "+3.5 on its scale". */
export function settingLabel(hardware: Hardware, setting: Setting): string {
  const reach = reachOf(hardware);
  if (reach.kind === 'marks')
    return 'mark' in setting
      ? (reach.positions.find(({ mark }) => mark === setting.mark)?.label ?? setting.mark)
      : 'no mark';
  if (!('at' in setting)) return 'no figure';
  return reach.scale ? `${signed(setting.at)} on its scale` : 'by the indicator';
}

/** Where it is when nobody has said: straight up, or the middle of its range. */
export function straightUp(hardware: Hardware): Setting {
  const reach = reachOf(hardware);
  if (reach.kind === 'range') return { at: Math.min(reach.to, Math.max(reach.from, 0)) };
  const [least] = [...reach.positions].sort((a, b) => Math.abs(a.advance) - Math.abs(b.advance));
  return { mark: least?.mark ?? '0' };
}
