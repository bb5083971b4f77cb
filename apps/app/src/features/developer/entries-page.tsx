import { useMemo } from 'react';
import { View } from 'react-native';
import { useLocalSearchParams } from 'expo-router';
import { derive } from '@/store/arithmetic';
import { selectEntries } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { BuildMissing, useBuildHere } from '@/shell/station-screen';
import { Page } from '@/ui/page';
import { Words } from '@/ui/words';
import { whatFollows } from './what-follows';

/** For developers: a logbook entry by entry, and what each changed. */
export function EntriesPage() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const entries = useAppSelector((state) => selectEntries(state, id));
  const { report, news } = useBuildHere();
  const followed = useMemo(() => whatFollows(entries, derive), [entries]);
  if (!report) return <BuildMissing news={news} />;
  return (
    <Page title="Entries" back={{ href: `/builds/${id}/zero`, label: 'The build' }}>
      {followed.map(({ entry, says }, at) => (
        <View key={entry.id} className="gap-1 border-t border-hairline py-2">
          <Words look="label">{`${at + 1} ${entry.kind}`}</Words>
          <Words look="soft" selectable>{`${entry.id} ${JSON.stringify(entry.body)}`}</Words>
          {says.map(({ station, words }) => (
            <Words key={station}>{`→ ${station}: ${words}`}</Words>
          ))}
        </View>
      ))}
    </Page>
  );
}
