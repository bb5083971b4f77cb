import type { Report } from '@yosoku/core/report/report';
import { ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import { crankAngleAtDrop } from '@yosoku/core/crank/slider-crank';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { type LengthUnit, type ParsedLength, formatLength, parseLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { TextField } from '@/ui/text-field';
import { useStation } from '@/logbook/station';

/** What is wrong with a figure as typed. */
function troubleOf(typed: ParsedLength, stroke: number | null, units: LengthUnit): string | null {
  if (!typed.ok) return typed.message;
  if (typed.mm === 0) return 'It must be more than 0. 0.050 in or 1 mm is usual for a drop.';
  if (stroke === null || typed.mm < stroke) return null;
  return `${typed.understood} is not less than the whole stroke, ${formatLength(stroke, units)}. Type a smaller figure, or correct the stroke.`;
}

/** Where the crank will about stand at a drop, mm; nothing where stroke or rod are not known. */
function whereAtDrop({ stroke, rod }: Report['build']['engine'], drop: number): string {
  const at = stroke === null || rod === null ? null : crankAngleAtDrop({ stroke, rod }, drop);
  return at ? `, about ${computedDegrees(at.after)} from TDC` : '';
}

/** What the indicator shall show on both sides, where the method goes by an indicator. */
export function useFigure({ build, zero }: Report) {
  const { draft, change } = useDraft<'text'>(`${build.id}/zero-figure`);
  const { method, step } = zero;
  const figure = method && ZERO_METHODS[method].figure;
  const needed = figure !== null;
  const text = draft.text ?? figure?.usual[build.units] ?? '';
  const parsed = parseLength(text, { family: 'lift', unit: build.units });
  const trouble = needed ? troubleOf(parsed, build.engine.stroke, build.units) : null;
  const fixed = step.does === 'read' ? step.figure : null;
  const mm = fixed ?? (parsed.ok && trouble === null ? parsed.mm : null);
  return {
    needed,
    text,
    trouble: fixed === null ? trouble : null,
    mm,
    fixed: fixed !== null,
    words: mm === null ? null : formatLength(mm, build.units),
    echo: parsed.ok
      ? parsed.understood + (figure?.isDrop && mm !== null ? whereAtDrop(build.engine, mm) : '')
      : undefined,
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
