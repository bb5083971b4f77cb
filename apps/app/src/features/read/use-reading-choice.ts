import { bankOf, cylinderOf, readCylinder, readingPlace } from '@/logbook/measured-cylinder';
import { VALVES, type Valve } from '@yosoku/core/cam/card';
import { READ_METHOD_NAMES, type ReadMethodName, readMethod } from '@yosoku/core/measure/read-methods';
import { type NextReading, nextReading } from '@yosoku/core/report/reading-words';
import type { Report } from '@yosoku/core/report/report';
import { type LengthUnit, formatLength, typedLength } from '@yosoku/core/units/length';
import { lengthIn, typedLengthOf } from '@/forms/typed-length';
import { drafted } from '@/store/drafts-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';

type SitsOn = Report['read']['sitsOn'];
const SITS_ON: readonly SitsOn[] = ['lobe', 'lifter', 'bucket', 'valve'];
/** Banks as they are kept in a draft. */
export const BANKS = [
  { value: '1', label: 'Bank 1' },
  { value: '2', label: 'Bank 2' },
] as const;

/**
 * Why a height can be none that is read at.
 * @param lift whole lift of the lobe where the indicator sits, mm, as far as it is known.
 */
function misfitOf(height: number, understood: string, lift: number | undefined, units: LengthUnit): string | null {
  if (height === 0) return 'It must be more than 0. 0.050 in or 1 mm is usual.';
  if (lift === undefined || height < lift) return null;
  const whole = formatLength(Math.round(lift * 1e4) / 1e4, units);
  return `${understood} is not less than the whole lobe lift, ${whole} on the card. Type a smaller one, or correct the card.`;
}

/** The height that this method was read at last, else the usual one, as it would be typed. */
function proposedHeight({ build, read }: Report, method: ReadMethodName): string {
  const last = read.heights.find((each) => each.method === method)?.height;
  if (last !== undefined) return typedLength(last, build.units);
  return readMethod(method).height?.usual[build.units] ?? '';
}

/** @param lobe whose whole lift the height must stay below, as far as that is known; null at the valve, where it is another figure. */
const typedHeight = ({ build: { units }, card }: Report, text: string, lobe: Valve | null) =>
  typedLengthOf(text, {
    units,
    family: 'lift',
    misfit: (mm, understood) => misfitOf(mm, understood, lobe === null ? undefined : card.lobes[lobe]?.peak, units),
  });

/** What is being read: valve, method, where the indicator sits, at which height. The builder's own choice, else what is proposed. */
export function useReadingChoice(report: Report) {
  const { build, read, target } = report;
  // Once a target is kept, the rule of the shop is in it.
  const rule = useAppSelector((state) => state.session.account?.readRule ?? null);
  const dispatch = useAppDispatch();
  const place = readingPlace(build.id, read.trial);
  const draft = useAppSelector((state) => state.drafts[place]) ?? {};
  const open = read.open.at(-1);
  const method: ReadMethodName =
    READ_METHOD_NAMES.find((name) => name === draft.method) ??
    open?.method ??
    (target.entry === null ? rule : null) ??
    read.proposal.method;
  const valve: Valve = VALVES.find((name) => name === draft.valve) ?? open?.valve ?? read.proposal.valve;
  const banked = build.engine.secondBank !== null;
  const bank = bankOf(report, draft);
  const cylinder = readCylinder(report, draft);
  const own = cylinderOf(report, bank);
  const { isFelt = false, height: asked } = readMethod(method);
  // What is felt is felt at the valve.
  const sitsOn: SitsOn = isFelt
    ? 'valve'
    : (SITS_ON.find((name) => name === draft.sitsOn) ?? open?.sitsOn ?? read.sitsOn);
  const heightText = draft[`height ${method}`] ?? proposedHeight(report, method);
  const typed = typedHeight(report, heightText, sitsOn === 'valve' ? null : valve);
  const height = isFelt ? 0 : lengthIn(typed);
  const zeroedAtTdc = draft.zeroed === 'tdc';
  const otherWay = zeroedAtTdc ? (report.prepare.asItStands?.oneWay ? 'on' : 'back') : null;
  const next: NextReading = nextReading(read, { method, valve, cylinder, sitsOn, height, otherWay }, build.units);
  const change = (part: Readonly<Record<string, string>>, at = place): void => {
    dispatch(drafted({ place: at, draft: { ...draft, ...part } }));
  };
  return {
    method,
    valve,
    isFelt,
    zeroedAtTdc,
    banked,
    bank,
    cylinder,
    /** Is it another cylinder than the one that the cam is measured at? */
    beside: cylinder !== own,
    toOwn: () => change({ cylinder: String(own) }),
    sitsOn,
    next,
    height: {
      asked: asked !== null && next.round === null,
      label: asked?.label ?? '',
      text: heightText,
      typed,
      mm: next.height,
      type: (text: string) => change({ [`height ${method}`]: text }),
    },
    choose: (part: {
      readonly method?: ReadMethodName;
      readonly valve?: Valve;
      readonly bank?: '1' | '2';
      readonly cylinder?: string;
      readonly sitsOn?: SitsOn;
      readonly zeroed?: 'base' | 'tdc';
    }) => change({ ...(part.bank === undefined ? {} : { cylinder: '' }), ...part }),
    /** What was read last is looked at until the builder goes on. */
    stayIn: (trial: string) =>
      change(
        {
          method,
          valve,
          ...(isFelt ? {} : { sitsOn }),
          cylinder: String(cylinder),
          ...(banked ? { bank: String(bank) } : {}),
        },
        readingPlace(build.id, trial),
      ),
  };
}

export type ReadingChoice = ReturnType<typeof useReadingChoice>;
