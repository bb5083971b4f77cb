import { View } from 'react-native';
import { rimTrouble, roundOf } from '@yosoku/core/crank/rim';
import type { WheelRing } from '@yosoku/core/crank/wheel';
import { ZERO_METHODS, type ZeroMethodName } from '@yosoku/core/tdc/zero-methods';
import type { LengthUnit } from '@yosoku/core/units/length';
import { LengthField } from '@/forms/length-field';
import { typedFigure } from '@/forms/typed-figure';
import { lengthIn, typedLengthOf } from '@/forms/typed-length';
import { useDraft } from '@/store/use-draft';
import { Choice } from '@/ui/choice';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const RIM_BY = [
  { value: 'diameter', label: 'Its diameter' },
  { value: 'round', label: 'Once round it' },
] as const;

interface BeforeMethodProps {
  readonly method: ZeroMethodName;
  readonly pin: ReturnType<typeof usePin> | null;
  readonly rim: ReturnType<typeof useRim> | null;
  /** Was it begun without what is asked for here? */
  readonly asked: boolean;
}

/** What has to be minded and given before a method is begun. */
export function BeforeMethod({ method, pin, rim, asked }: BeforeMethodProps) {
  const { cautions, needs } = ZERO_METHODS[method];
  return (
    <>
      <Notice
        kind="warning"
        message="Before you turn it"
        remedy={`${cautions.join(' ')} The engine maker’s manual has the last word.`}
      />
      {pin ? <PinField pin={pin} /> : null}
      {rim ? <RimFields rim={rim} asked={asked} /> : null}
      {rim && needs.readBy === 'either' ? (
        <Words look="soft">
          Fix a pointer at the rim of the balancer; marks and a tape take the place of the wheel.
        </Words>
      ) : null}
    </>
  );
}

/** The tolerance of a maker's pin, as typed. */
export function usePin(buildId: string) {
  const { draft, change } = useDraft<'text'>(`${buildId}/pin`);
  const { text = '1' } = draft;
  const value = typedFigure(text);
  return {
    text,
    value,
    trouble: value >= 0.05 && value <= 5 ? null : 'Degrees of the crank, from 0.05 to 5.',
    type: (typed: string): void => change({ text: typed }),
  };
}

const PinField = ({ pin }: { readonly pin: ReturnType<typeof usePin> }) => (
  <TextField
    testID="pin-tolerance"
    label="What the manual says it is good for, ± crank degrees"
    value={pin.text}
    onChange={pin.type}
    inputMode="decimal"
    error={pin.trouble ?? undefined}
  />
);

/** The rim that is measured with a tape: by its diameter, or once round it. Kept while it is typed. */
export function useRim(buildId: string, units: LengthUnit) {
  const { draft, change } = useDraft<'by' | 'text'>(`${buildId}/rim`);
  const by = draft.by === 'round' ? 'round' : 'diameter';
  const { text = '' } = draft;
  const roundBy = { round: (mm: number) => mm, diameter: roundOf }[by];
  const typed = typedLengthOf(text, { units, family: 'dimension', misfit: (mm) => rimTrouble(roundBy(mm)) });
  const size = lengthIn(typed);
  const ring: WheelRing | null = size === null ? null : { ring: 'rim', round: roundBy(size), unit: units };
  return { by, text, change, typed, ring } as const;
}

function RimFields({ rim, asked }: { readonly rim: ReturnType<typeof useRim>; readonly asked: boolean }) {
  return (
    <View className="gap-3">
      <Choice label="The balancer, measured by" options={RIM_BY} value={rim.by} onChange={(by) => rim.change({ by })} />
      <LengthField
        testID="rim-size"
        label={rim.by === 'round' ? 'Once round the rim' : 'Diameter of the rim'}
        text={rim.text}
        typed={rim.typed}
        onChange={(text) => rim.change({ text })}
        missing={asked ? 'Measure the balancer first.' : undefined}
      />
    </View>
  );
}
