import type { UseFormReturn } from 'react-hook-form';
import { View } from 'react-native';
import { ringWords } from '@yosoku/core/crank/wheel';
import { wheelDegrees } from '@yosoku/core/units/degrees';
import { type LengthUnit, formatLength } from '@yosoku/core/units/length';
import { type WheelOfShop, useShelves } from '@/forms/use-shelves';
import { QuietButton } from '@/ui/buttons';
import { More } from '@/ui/more';
import { type EngineForm, wheelForm } from './engine-form';

/** More would be a list to be read instead of a wheel to be looked at. */
const MOST = 4;

/** Wheels that the shop has described before: one press, and its numbers, size and lines stand in the form. */
export function WheelsOfShop({ form }: { readonly form: UseFormReturn<EngineForm> }) {
  const { wheels } = useShelves();
  const units: LengthUnit = form.watch('units') === 'mm' ? 'mm' : 'in';
  // What is read along a rim belongs to its engine, and what has no size says no more than the choices above.
  const known = wheels.filter(
    ({ wheel, instruments }) => wheel.ring !== 'rim' && instruments?.wheelDiameter !== undefined,
  );
  if (known.length === 0) return null;
  const take = (wheel: WheelOfShop): void => {
    for (const [name, value] of Object.entries(wheelForm(wheel, units)))
      form.setValue(name as keyof EngineForm, value, { shouldDirty: true, shouldValidate: true });
  };
  return (
    <More label="A wheel of the shop" testID="wheels-of-shop">
      {known.slice(0, MOST).map((wheel) => (
        <View key={JSON.stringify(wheel)} className="items-start">
          <QuietButton testID="wheel-offer" label={wheelWords(wheel, units)} onPress={() => take(wheel)} />
        </View>
      ))}
    </More>
  );
}

/** "0–180 and 0–90, 16.000 in across, lines every ½°" */
function wheelWords({ wheel, rings = [], instruments }: WheelOfShop, units: LengthUnit): string {
  const numbers = [wheel, ...rings].map(ringWords).join(' and ');
  const { wheelDiameter, graduation } = instruments ?? {};
  return [
    numbers,
    wheelDiameter === undefined ? null : `${formatLength(wheelDiameter, units, 'dimension')} across`,
    graduation === undefined ? null : `lines every ${wheelDegrees(graduation)}`,
  ]
    .filter((each) => each !== null)
    .join(', ');
}
