import { View } from 'react-native';
import type { Report } from '@yosoku/core/report/report';
import { Words } from '@/ui/words';
import { capital } from '@yosoku/core/report/capital';

type Faults = Report['trials'][number]['faults'];

/** What may have happened, best explanation first, each with the check that tells. */
export function FaultList({ faults }: { readonly faults: Faults }) {
  if (faults.length === 0) return null;
  return (
    <View testID="faults" className="pb-3">
      <Words look="heading" level={2}>
        {faults.length === 1 ? 'What most likely happened' : 'What may have happened: the readings cannot tell'}
      </Words>
      {faults.map(({ fault, words, check }, at) => (
        <View key={fault} testID={`fault-${fault}`} className="flex-row gap-3 border-b border-hairline py-2">
          <Words look="figure" tone="brass">
            {`${at + 1}`}
          </Words>
          <View className="shrink grow gap-1">
            <Words look="label">{capital(words)}</Words>
            <Words look="soft" tone="ink">{`Check: ${check}`}</Words>
          </View>
        </View>
      ))}
    </View>
  );
}
