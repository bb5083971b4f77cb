import type { Report } from '@yosoku/core/report/report';
import { ZERO_METHODS } from '@yosoku/core/tdc/zero-methods';
import { crankAngleAtDrop } from '@yosoku/core/crank/slider-crank';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { type LengthUnit, formatLength } from '@yosoku/core/units/length';
import { useDraft } from '@/store/use-draft';
import { useStation } from '@/logbook/station';
import { LengthField } from './length-field';
import { lengthIn, typedLengthOf } from './typed-length';

/** Why a figure can be none that is brought to. @param stroke mm, where it is known */
function misfitOf(mm: number, understood: string, stroke: number | null, units: LengthUnit): string | null {
  if (mm === 0) return 'It must be more than 0. 0.050 in or 1 mm is usual for a drop.';
  if (stroke === null || mm < stroke) return null;
  return `${understood} is not less than the whole stroke, ${formatLength(stroke, units)}. Type a smaller figure, or correct the stroke.`;
}

/** Where the crank will about stand at a drop, mm; nothing where stroke or rod are not known. */
function whereAtDrop({ stroke, rod }: Report['build']['engine'], drop: number): string {
  const at = stroke === null || rod === null ? null : crankAngleAtDrop({ stroke, rod }, drop);
  return at ? `, about ${computedDegrees(at.after)} from TDC` : '';
}

/** What the indicator shall show on both sides, where the method goes by an indicator. */
export function useFigure({ build, zero }: Report) {
  const { units, engine } = build;
  const { draft, change } = useDraft<'text'>(`${build.id}/zero-figure`);
  const { method, step } = zero;
  const asked = method && ZERO_METHODS[method].figure;
  const text = draft.text ?? asked?.usual[units] ?? '';
  const typed = typedLengthOf(text, {
    units,
    family: 'lift',
    misfit: (mm, understood) => misfitOf(mm, understood, engine.stroke, units),
  });
  // The other side is brought to what the first was.
  const fixed = step.does === 'read' ? step.figure : null;
  const mm = fixed ?? (asked ? lengthIn(typed) : null);
  return {
    needed: asked !== null,
    asked,
    text,
    typed,
    mm,
    fixed: fixed !== null,
    words: mm === null ? null : formatLength(mm, units),
    type: (next: string) => change({ text: next }),
  };
}

export type Figure = ReturnType<typeof useFigure>;

export function FigureField({ figure: { asked, fixed, text, typed, type } }: { readonly figure: Figure }) {
  const { engine } = useStation().report.build;
  if (!asked || fixed) return null;
  return (
    <LengthField
      testID="figure"
      label={asked.label}
      text={text}
      typed={typed}
      onChange={type}
      missing="Enter what the indicator shall show."
      says={(mm, understood) => understood + (asked.isDrop ? whereAtDrop(engine, mm) : '')}
    />
  );
}
