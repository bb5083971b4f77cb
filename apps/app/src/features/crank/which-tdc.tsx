import { useState } from 'react';
import { View } from 'react-native';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { QuietButton } from '@/ui/buttons';
import { Choice } from '@/ui/choice';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

const SEEN = [
  { value: 'rocking', label: 'Rocking: exhaust closing, intake opening' },
  { value: 'both-closed', label: 'Both closed, with lash' },
] as const;

/** Overlap or firing: by cylinder 1's own valves, or by those of the cylinder that fires 360° away. */
export function WhichTdc() {
  const { report, write } = useStation();
  const { crank } = report;
  const [looked, setLooked] = useState<'own' | 'companion'>('own');
  const [seen, setSeen] = useState<'rocking' | 'both-closed' | undefined>(undefined);
  const whose = [
    { value: 'own', label: 'Cylinder 1' },
    ...(crank.companion === null ? [] : [{ value: 'companion', label: `Cylinder ${crank.companion}` }]),
  ] as { value: 'own' | 'companion'; label: string }[];
  const keep = (): void => {
    if (seen) write('tdc.identified', { replaces: crank.identified?.entry ?? null, looked, seen });
  };
  return (
    <View className="gap-3">
      <Words look="heading" level={2}>
        Which TDC is it?
      </Words>
      {crank.identified ? (
        <Words look="sentence" testID="which-tdc">
          {crank.identified.words}
        </Words>
      ) : (
        <Words look="soft">With cylinder 1 at TDC, look at the valves. No wheel can show it.</Words>
      )}
      <Choice label="Whose valves" options={whose} value={looked} onChange={setLooked} />
      {crank.companion === null ? (
        <Words look="soft">No cylinder fires exactly 360° from cylinder 1 here: only its own valves decide.</Words>
      ) : null}
      <Choice testID="valves-seen" label="They are" options={SEEN} value={seen} onChange={setSeen} />
      <View className="items-start">
        <QuietButton testID="which-keep" label="Save" disabled={seen === undefined} onPress={keep} />
      </View>
      <View role="table" aria-label="Firing TDC of every cylinder">
        <View role="row" className="flex-row border-b border-line py-1">
          <Words role="columnheader" look="soft" className="basis-0 grow">
            Cylinder
          </Words>
          <Words role="columnheader" look="soft" className="basis-0 grow text-right">
            fires after 1 by
          </Words>
          <Words role="columnheader" look="soft" className="basis-0 grow text-right">
            wheel shows
          </Words>
        </View>
        {crank.cylinders.map(({ cylinder, after, shows }) => (
          <View role="row" key={cylinder} className="min-h-[34px] flex-row items-center border-b border-hairline">
            <Words role="cell" look="figure" className="basis-0 grow">
              {String(cylinder)}
            </Words>
            <Words role="cell" look="figure" className="basis-0 grow text-right">
              {computedDegrees(after, Number.isInteger(after) ? 0 : 1)}
            </Words>
            <Words role="cell" look="figure" className="basis-0 grow text-right">
              {shows || '–'}
            </Words>
          </View>
        ))}
      </View>
    </View>
  );
}
