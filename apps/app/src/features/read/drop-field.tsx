import type { Report } from '@yosoku/core/logbook/report';
import { formatLength, parseLength } from '@yosoku/core/units/length';
import { drafted } from '@/store/drafts-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { TextField } from '@/ui/text-field';

/** The drop that builders use most. Common practice, no source. */
const USUAL_DROP = { in: '0.050', mm: '1.00' } as const;

/** The drop below peak as typed, understood, and checked against the card's lift. */
export function useDrop({ build, card, read }: Report) {
  const dispatch = useAppDispatch();
  const place = `${build.id}/drop`;
  const kept = useAppSelector((state) => state.drafts[place]?.text);
  const text = kept ?? USUAL_DROP[build.units];
  const parsed = parseLength(text, { family: 'lift', unit: build.units });
  const tooBig = parsed.ok && card.lobeLift !== null && parsed.mm >= card.lobeLift;
  const trouble = !parsed.ok
    ? parsed.message
    : parsed.mm === 0
      ? 'The drop must be more than 0. 0.050 in or 1 mm is usual.'
      : tooBig
        ? `${parsed.understood} is not less than the whole lobe lift, ${formatLength(card.lobeLift ?? 0, build.units)} on the card. Type a smaller drop, or correct the card.`
        : null;
  const fixed = read.round !== null && read.drop !== null ? read.drop : null;
  return {
    text,
    trouble: fixed === null ? trouble : null,
    mm: fixed ?? (parsed.ok && trouble === null ? parsed.mm : null),
    echo: parsed.ok ? parsed.understood : null,
    type: (typed: string) => {
      dispatch(drafted({ place, draft: { text: typed } }));
    },
  };
}

export type Drop = ReturnType<typeof useDrop>;

/** The same drop is used on both sides of the nose; which one hardly matters. */
export function DropField({ drop, asked }: { readonly drop: Drop; readonly asked: boolean }) {
  const trouble = drop.trouble ?? (asked && drop.mm === null ? 'Type the drop first.' : null);
  return (
    <TextField
      testID="drop"
      label="Drop below peak, the same on both sides"
      value={drop.text}
      onChange={drop.type}
      inputMode="decimal"
      error={trouble ?? undefined}
      echo={drop.echo ?? undefined}
    />
  );
}
