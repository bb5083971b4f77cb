import { View } from 'react-native';
import type { Valve } from '@yosoku/core/cam/card';
import { decimal } from '@yosoku/core/units/decimal';
import { computedDegrees } from '@yosoku/core/units/degrees';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { useTheme } from '@/ui/theme';
import { Words } from '@/ui/words';
import { useDrawing } from './use-drawing';

interface DrawnCheckProps {
  readonly buildId: string;
  readonly trial: string;
  readonly cam: Valve;
  readonly bank: 1 | 2;
}

/** The stated interval against a million draws of everything that errs, on demand. */
export function DrawnCheck({ buildId, trial, cam, bank }: DrawnCheckProps) {
  const { drawing, begin, cancel } = useDrawing(buildId, trial, cam, bank);
  const theme = useTheme();
  if (drawing.state === 'drawing')
    return (
      <View className="gap-1 py-1" testID="drawing">
        <View
          role="progressbar"
          aria-label="Simulating"
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(100 * drawing.share)}
          style={{ height: 4, backgroundColor: theme.hairline }}
        >
          <View style={{ height: 4, width: `${100 * drawing.share}%`, backgroundColor: theme.brass }} />
        </View>
        <View className="flex-row items-center justify-between">
          <Words look="soft">{`Drawing, ${decimal(100 * drawing.share, 0)} % of a million`}</Words>
          <QuietButton testID="stop-drawing" label="Stop" onPress={cancel} />
        </View>
      </View>
    );
  return (
    <View className="gap-1">
      {drawing.state === 'done' ? (
        <Words testID="drawn" aria-live="polite">
          {`Of a million simulated measurements, 95 % lie between ${signed(drawing.drawn.low)} and ${signed(drawing.drawn.high)} of the figure; stated ±${computedDegrees(drawing.stated, 2)}. ${agreement(drawing.drawn.low, drawing.drawn.high, drawing.stated)}`}
        </Words>
      ) : null}
      {drawing.state === 'failed' ? (
        <Notice
          kind="warning"
          message="The drawing could not be done here."
          remedy="The stated interval stands. Load the page again and try once more."
        />
      ) : null}
      <View className="items-start">
        <QuietButton testID="draw" label="Check ± with a million simulated measurements" onPress={begin} />
      </View>
    </View>
  );
}

const signed = (value: number): string => `${value < 0 ? '−' : '+'}${computedDegrees(Math.abs(value), 2)}`;

/** JCGM 101, clause 8: the two agree where neither end is further off than half of the last digit that is stated. */
function agreement(low: number, high: number, stated: number): string {
  const off = Math.max(Math.abs(-low - stated), Math.abs(high - stated));
  return off <= 0.05 ? 'They agree.' : `They differ by ${computedDegrees(off, 2)}: believe the wider one.`;
}
