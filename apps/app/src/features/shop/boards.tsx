import { useState } from 'react';
import { View } from 'react-native';
import { cutText } from '@yosoku/core/units/text';
import { api, ask } from '@/sync/api';
import { originFor } from '@/sync/reach';
import { useAttempt } from '@/sync/use-attempt';
import { useBoards } from '@/sync/use-boards';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

const LONGEST_NAME = 40;

/** Screens across the shop: a link for each, shown once. */
export function Boards() {
  const { boards, again } = useBoards();
  const { trouble, attempt } = useAttempt();
  const [name, setName] = useState('');
  const [fresh, setFresh] = useState<{ readonly name: string; readonly link: string; readonly here: boolean } | null>(
    null,
  );
  const add = async (): Promise<void> => {
    const made = await attempt(async () => {
      const board = await ask(api.boards.$post({ json: { name: name.trim() } }));
      const origin = originFor(await ask(api.reach.$get()));
      setFresh({
        name: board.name,
        link: `${origin ?? location.origin}/board#${board.token}`,
        here: origin === null,
      });
    });
    if (made) setName('');
    again();
  };
  const remove = async (id: string): Promise<void> => {
    await attempt(() => ask(api.boards[':id'].$delete({ param: { id } })));
    setFresh(null);
    again();
  };
  return (
    <View className="gap-3" testID="boards">
      <Words look="heading" level={2}>
        Boards
      </Words>
      <Words look="soft">
        A screen across the shop can follow one build: what to do now, what was read last, the verdict. It needs no
        sign-in, only its link, and its link shows nothing else.
      </Words>
      {boards === 'loading' ? <Words look="soft">Loading the boards.</Words> : null}
      {boards === 'unreachable' ? <Words look="soft">The server cannot be reached.</Words> : null}
      {typeof boards === 'string' ? null : (
        <View role="list">
          {boards.map((board) => (
            <View
              key={board.id}
              role="listitem"
              className="min-h-[48px] flex-row flex-wrap items-center justify-between border-t border-hairline"
            >
              <Words className="shrink">
                {board.buildName === null ? `${board.name}: shows nothing` : `${board.name}: ${board.buildName}`}
              </Words>
              <QuietButton
                testID={`board-remove-${board.name}`}
                label="Take its link back"
                onPress={() => void remove(board.id)}
              />
            </View>
          ))}
        </View>
      )}
      {fresh ? (
        <Notice
          kind="warning"
          testID="board-link"
          message={`The link of ${fresh.name}, shown only now:`}
          remedy={
            fresh.here
              ? 'No other machine can reach this server yet: start it with npm start -- --lan. Then open the link on that screen.'
              : 'Open it on that screen. What it shows is chosen on the Sheet of a build.'
          }
        >
          <Words look="figure" selectable testID="board-link-value">
            {fresh.link}
          </Words>
        </Notice>
      ) : null}
      <TextField
        testID="board-name"
        label="Name of a new board, like “Over the dyno”"
        value={name}
        onChange={(text) => setName(cutText(text, LONGEST_NAME))}
        error={trouble?.fields.name ?? trouble?.message}
        onSubmitEditing={() => void add()}
      />
      <View className="items-start">
        <QuietButton testID="board-add" label="Make a link" onPress={() => void add()} />
      </View>
    </View>
  );
}
