import { View } from 'react-native';
import { useStation } from '@/logbook/station';
import { api, ask } from '@/sync/api';
import { useAttempt } from '@/sync/use-attempt';
import { useBoards } from '@/sync/use-boards';
import { QuietButton } from '@/ui/buttons';
import { TextLink } from '@/ui/text-link';
import { Words } from '@/ui/words';

/** Which screens across the shop show this build. */
export function OnBoard() {
  const { id } = useStation().report.build;
  const { boards, again } = useBoards();
  const { trouble, attempt } = useAttempt();
  const show = async (board: string, buildId: string | null): Promise<void> => {
    await attempt(() => ask(api.boards[':id'].$put({ param: { id: board }, json: { buildId } })));
    again();
  };
  // Without a network there is nothing to put it on.
  if (typeof boards === 'string') return null;
  return (
    <View className="flex-row flex-wrap items-center gap-x-6">
      {boards.map((board) => (
        <QuietButton
          key={board.id}
          testID={`show-on-${board.name}`}
          label={board.buildId === id ? `Take it off “${board.name}”` : `Show it on “${board.name}”`}
          onPress={() => void show(board.id, board.buildId === id ? null : id)}
        />
      ))}
      {boards.length === 0 ? (
        <TextLink href="/shop" className="px-2 py-3">
          Show it on a screen across the shop
        </TextLink>
      ) : null}
      {trouble ? (
        <Words role="alert" tone="danger">
          {trouble.message}
        </Words>
      ) : null}
    </View>
  );
}
