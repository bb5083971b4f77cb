import { ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import { PUSHED_AGREES } from '@yosoku/core/findings/readings/zero-passes';
import type { Report } from '@yosoku/core/report/report';
import { type LengthUnit, type ParsedLength, formatLength, parseLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { TextField } from '@/ui/text-field';

/** Why a figure cannot be that of the pushed valve. @param noted on the first side, mm. */
function troubleOf(parsed: ParsedLength, noted: number | null, units: LengthUnit): string | null {
  if (!parsed.ok) return parsed.message;
  if (parsed.mm === 0) return 'Pushed down, it shows more than 0.';
  if (noted === null || Math.abs(parsed.mm - noted) <= PUSHED_AGREES) return null;
  return `Come back to ${formatLength(noted, units)}, coming down to it: both sides have to be read at one height.`;
}

/** What the indicator shows with the valve pushed down by its adjuster: noted on the first side, come back to on the second. */
export function usePushed({ build, zero }: Report) {
  const { draft, change } = useDraft<'text'>(`${build.id}/zero-pushed`);
  const { text = '' } = draft;
  const needed = zero.method !== null && ZERO_METHODS[zero.method].pushesValve === true;
  const parsed = parseLength(text, { family: 'lift', unit: build.units });
  const { step } = zero;
  const pass = step.does === 'read' ? zero.passes.find(({ id }) => id === step.pass) : undefined;
  const noted = pass?.readings[0]?.pushed ?? null;
  const trouble = text === '' ? null : troubleOf(parsed, noted, build.units);
  return {
    needed,
    text,
    trouble,
    noted: noted === null ? null : formatLength(noted, build.units),
    echo: parsed.ok ? parsed.understood : undefined,
    mm: needed && parsed.ok && trouble === null ? parsed.mm : null,
    type: (typed: string) => change({ text: typed }),
  };
}

export function PushedField({ pushed }: { readonly pushed: ReturnType<typeof usePushed> }) {
  if (!pushed.needed) return null;
  return (
    <TextField
      testID="pushed"
      label={
        pushed.noted
          ? `Pushed down again, the indicator shows (${pushed.noted} before)`
          : 'Pushed down, the indicator shows'
      }
      value={pushed.text}
      onChange={pushed.type}
      inputMode="decimal"
      error={pushed.trouble ?? undefined}
      echo={pushed.echo}
    />
  );
}
