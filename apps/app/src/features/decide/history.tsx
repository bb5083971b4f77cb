import { View } from 'react-native';
import { decimal } from '@yosoku/core/units/decimal';
import { offWords } from '@/findings/view-list';
import { Words } from '@/ui/words';
import { useStation } from '@/logbook/station';

/** The trials side by side, newest first, and what has changed since the engine was measured before. */
export function History() {
  const { report } = useStation();
  const { trials, wear } = report;
  if (trials.length < 2 && wear.length === 0) return null;
  return (
    <View className="pb-4" testID="history">
      {wear.length > 0 ? (
        <View className="pb-3">
          <Words look="heading" level={2}>
            Since it was measured before
          </Words>
          {wear.map(({ words, changed }) => (
            <Words key={words} tone={changed ? 'danger' : 'ink'} className="border-b border-hairline py-2">
              {words}
            </Words>
          ))}
        </View>
      ) : null}
      <Words look="heading" level={2}>
        Trials
      </Words>
      {[...trials].reverse().map(({ id, number, begunAt, note, why, cams, verdict }) => (
        <View key={id} className="flex-row gap-3 border-b border-hairline py-2">
          <View className="w-[88px]">
            <Words look="label">{`Trial ${number}`}</Words>
            <Words look="soft">{dateWords(begunAt)}</Words>
          </View>
          <View className="shrink grow basis-0">
            {cams.map(({ cam, verdict: its }) => (
              <Words key={cam} look="figure">
                {`${cam === 'single' ? '' : `${cam} `}${offWords(its.delta ?? 0)} ±${decimal(its.expanded ?? 0, 1)}`}
              </Words>
            ))}
            <Words look="soft">{verdict ? verdict.headline : 'Not measured.'}</Words>
            {note || why === 'checked' ? (
              <Words look="soft">{[why === 'checked' ? 'nothing moved' : null, note].filter(Boolean).join('; ')}</Words>
            ) : null}
          </View>
        </View>
      ))}
    </View>
  );
}

const dateWords = (at: string): string =>
  new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
