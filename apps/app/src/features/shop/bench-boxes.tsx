import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useAppSelector } from '@/store/store';
import { Refusal, api, ask } from '@/sync/api';
import { QuietButton } from '@/ui/buttons';
import { Notice } from '@/ui/notice';
import { TextField } from '@/ui/text-field';
import { Words } from '@/ui/words';

interface Box {
  readonly name: string;
  readonly live: boolean;
}

/** The bench boxes of the shop: a key for each, shown once. */
export function BenchBoxes() {
  const [boxes, setBoxes] = useState<readonly Box[] | 'asking' | 'unreachable'>('asking');
  const owner = useAppSelector((state) => state.session.account?.role === 'owner');
  const [name, setName] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [fresh, setFresh] = useState<{ readonly name: string; readonly key: string } | null>(null);
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    ask(api.instruments.$get()).then(
      (answer) => setBoxes(answer.boxes),
      () => setBoxes('unreachable'),
    );
  }, [asked]);
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      setTrouble(null);
      setAsked((times) => times + 1);
    } catch (error) {
      setTrouble(
        error instanceof Refusal
          ? (error.fields[0]?.message ?? error.detail)
          : 'The server cannot be reached. Try again when there is a network.',
      );
    }
  };
  const add = (): void =>
    void attempt(async () => {
      setFresh(await ask(api.instruments.$post({ json: { name: name.trim() } })));
      setName('');
    });
  const remove = (box: string): void =>
    void attempt(async () => {
      await ask(api.instruments[':name'].$delete({ param: { name: box } }));
      if (fresh?.name === box) setFresh(null);
    });
  return (
    <View className="gap-3">
      <Words look="heading" level={2}>
        Bench boxes
      </Words>
      <Words look="soft">
        A small box with an encoder on the crank and one or two digital indicators can send its readings here. Give it a
        key; what it has to say stands in docs/instruments.md.
      </Words>
      {boxes === 'asking' ? <Words look="soft">Fetching the boxes.</Words> : null}
      {boxes === 'unreachable' ? <Words look="soft">The server cannot be reached.</Words> : null}
      {Array.isArray(boxes) ? <BoxList boxes={boxes} onRemove={owner ? remove : null} /> : null}
      {fresh ? (
        <Notice
          kind="warning"
          testID="box-key"
          message={`The key of ${fresh.name}, shown only now:`}
          remedy="Write it into the box. Who has it can speak as this box; nothing else."
        >
          <Words look="figure" selectable testID="box-key-value">
            {fresh.key}
          </Words>
        </Notice>
      ) : null}
      {owner ? (
        <>
          <TextField
            testID="box-name"
            label="Name of a new box: letters, digits and hyphens"
            value={name}
            onChange={setName}
            error={trouble ?? undefined}
            onSubmitEditing={add}
          />
          <View className="items-start">
            <QuietButton testID="box-add" label="Give it a key" onPress={add} />
          </View>
        </>
      ) : (
        <Words look="soft">The owner of the shop gives a new box its key.</Words>
      )}
    </View>
  );
}

/** The boxes that have a key. @param onRemove null for who may not take it away. */
const BoxList = ({
  boxes,
  onRemove,
}: {
  readonly boxes: readonly Box[];
  readonly onRemove: ((name: string) => void) | null;
}) => (
  <View role="list">
    {boxes.map(({ name, live }) => (
      <View
        key={name}
        role="listitem"
        className="min-h-[48px] flex-row items-center justify-between border-t border-hairline"
      >
        <Words>{`${name}, ${live ? 'plugged in' : 'not plugged in'}`}</Words>
        {onRemove ? (
          <QuietButton testID={`box-remove-${name}`} label="Take its key away" onPress={() => onRemove(name)} />
        ) : null}
      </View>
    ))}
  </View>
);
