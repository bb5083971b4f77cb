import { ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import { PUSHED_AGREES } from '@yosoku/core/findings/readings/zero-passes';
import type { Report } from '@yosoku/core/report/report';
import { type LengthUnit, formatLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { LengthField } from '@/forms/length-field';
import { lengthIn, typedLengthOf } from '@/forms/typed-length';

/** Why a figure cannot be that of the pushed valve. @param noted on the first side, mm. */
function misfitOf(mm: number, noted: number | null, units: LengthUnit): string | null {
  if (mm === 0) return 'Pushed down, it shows more than 0.';
  if (noted === null || Math.abs(mm - noted) <= PUSHED_AGREES) return null;
  return `Come back to ${formatLength(noted, units)}, coming down to it: both sides have to be read at one height.`;
}

/** What the indicator shows with the valve pushed down by its adjuster: noted on the first side, come back to on the second. */
export function usePushed({ build, zero }: Report) {
  const { draft, change } = useDraft<'text'>(`${build.id}/zero-pushed`);
  const { text = '' } = draft;
  const needed = zero.method !== null && ZERO_METHODS[zero.method].pushesValve === true;
  const { step } = zero;
  const pass = step.does === 'read' ? zero.passes.find(({ id }) => id === step.pass) : undefined;
  const noted = pass?.readings[0]?.pushed ?? null;
  const typed = typedLengthOf(text, {
    units: build.units,
    family: 'lift',
    misfit: (mm) => misfitOf(mm, noted, build.units),
  });
  return {
    needed,
    text,
    typed,
    noted: noted === null ? null : formatLength(noted, build.units),
    mm: needed ? lengthIn(typed) : null,
    type: (text: string) => change({ text }),
  };
}

export function PushedField({ pushed }: { readonly pushed: ReturnType<typeof usePushed> }) {
  if (!pushed.needed) return null;
  return (
    <LengthField
      testID="pushed"
      label={
        pushed.noted
          ? `Pushed down again, the indicator shows (${pushed.noted} before)`
          : 'Pushed down, the indicator shows'
      }
      text={pushed.text}
      typed={pushed.typed}
      onChange={pushed.type}
    />
  );
}
