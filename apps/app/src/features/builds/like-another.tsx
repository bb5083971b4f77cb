import { useState } from 'react';
import { View } from 'react-native';
import { useStore } from 'react-redux';
import type { Report } from '@yosoku/core/report/report';
import { type TakenOver, takenOver } from '@yosoku/core/record/like';
import { offered } from '@/forms/use-shelves';
import { selectBuilds, selectEntries, selectReport } from '@/store/selectors';
import { type RootState, type Store, useAppSelector } from '@/store/store';
import { fetchEntries } from '@/sync/fetch-builds';
import { QuietButton } from '@/ui/buttons';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

/** An earlier build, and what a new one takes over from it. */
export interface Like {
  readonly report: Report;
  readonly taken: TakenOver;
}

/** How its cam came in: the verdict on the first trial that has one. */
function cameIn({ trials }: Report) {
  const verdict = trials.flatMap(({ cams }) => cams)[0]?.verdict;
  return verdict?.delta == null || verdict.expanded === null
    ? null
    : { delta: verdict.delta, expanded: verdict.expanded };
}

/** "New build like …": two letters of an earlier build, and its engine, card, target and hardware come along. */
export function LikeAnother({
  like,
  onLike,
}: {
  readonly like: Like | null;
  readonly onLike: (like: Like | null) => void;
}) {
  const store = useStore<RootState>() as unknown as Store;
  const builds = useAppSelector(selectBuilds);
  const [typed, setTyped] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [fetching, setFetching] = useState(false);
  if (builds.length === 0) return null;
  const take = async (id: string): Promise<void> => {
    setTrouble(null);
    setFetching(true);
    await fetchEntries(store, id);
    setFetching(false);
    const report = selectReport(store.getState(), id);
    const taken = report && takenOver(selectEntries(store.getState(), id), cameIn(report));
    if (!report || !taken) {
      setTrouble(
        'That build is not on this device, and the server cannot be reached. Type the engine in, or try again.',
      );
      return;
    }
    setTyped('');
    onLike({ report, taken });
  };
  if (like)
    return (
      <View className="items-start gap-1 border-l-4 border-brass pl-3" testID="like">
        <Words look="label">{`Like ${like.report.build.name}`}</Words>
        <Words look="soft">{`Taken over: ${takenWords(like.taken)}. All of it can be changed here and at its station; readings and checks stay there.`}</Words>
        <QuietButton testID="unlike" label="Begin empty instead" onPress={() => onLike(null)} />
      </View>
    );
  return (
    <View className="gap-1">
      <TextField
        testID="like-search"
        label="Like an earlier build? Two letters of its name"
        value={typed}
        onChange={setTyped}
        error={trouble ?? undefined}
      />
      {fetching ? <Words look="soft">Loading it.</Words> : null}
      {offered(builds, typed).map(({ id, name }) => (
        <View key={id} className="items-start">
          <QuietButton testID="like-offer" label={name} onPress={() => void take(id)} />
        </View>
      ))}
    </View>
  );
}

const takenWords = ({ card, target, drive }: TakenOver): string =>
  [
    'engine and wheel',
    card ? `card ${card.name ?? ''}`.trim() : null,
    target ? 'target' : null,
    drive ? 'timing set' : null,
  ]
    .filter((each) => each !== null)
    .join(', ');
