import type { Report } from '@yosoku/core/report/report';
import { ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import { crankAngleAtDrop } from '@yosoku/core/crank/slider-crank';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { formatLength, parseLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { TextField } from '@/ui/text-field';
import { useStation } from '@/logbook/station';

/** What the indicator shall show on both sides, where the method goes by an indicator. */
export function useFigure({ build, zero }: Report) {
  const { draft, change } = useDraft<'text'>(`${build.id}/zero-figure`);
  const { method, step } = zero;
  const figure = method && ZERO_METHODS[method].figure;
  const needed = figure !== null;
  const text = draft.text ?? figure?.usual[build.units] ?? '';
  const parsed = parseLength(text, { family: 'lift', unit: build.units });
  const { stroke, rod } = build.engine;
  const tooFar = parsed.ok && stroke !== null && parsed.mm >= stroke;
  const trouble = !needed
    ? null
    : !parsed.ok
      ? parsed.message
      : parsed.mm === 0
        ? 'It must be more than 0. 0.050 in or 1 mm is usual for a drop.'
        : tooFar
          ? `${parsed.understood} is not less than the whole stroke, ${formatLength(stroke ?? 0, build.units)}. Type a smaller figure, or correct the stroke.`
          : null;
  const fixed = step.does === 'read' ? step.figure : null;
  const mm = fixed ?? (parsed.ok && trouble === null ? parsed.mm : null);
  const at =
    mm !== null && stroke !== null && rod !== null && figure?.isDrop ? crankAngleAtDrop({ stroke, rod }, mm) : null;
  return {
    needed,
    text,
    trouble: fixed === null ? trouble : null,
    mm,
    fixed: fixed !== null,
    words: mm === null ? null : formatLength(mm, build.units),
    echo: parsed.ok ? `${parsed.understood}${at ? `, about ${computedDegrees(at.after)} from TDC` : ''}` : undefined,
    type: (typed: string) => change({ text: typed }),
  };
}

export type Figure = ReturnType<typeof useFigure>;

export function FigureField({ figure }: { readonly figure: Figure }) {
  const { report } = useStation();
  const { method } = report.zero;
  const label = method && ZERO_METHODS[method].figure?.label;
  if (!label || figure.fixed) return null;
  return (
    <TextField
      testID="figure"
      label={label}
      value={figure.text}
      onChange={figure.type}
      inputMode="decimal"
      error={figure.trouble ?? undefined}
      echo={figure.echo}
    />
  );
}
