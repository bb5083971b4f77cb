import { Link } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { api, ask } from '@/sync/api';
import { Words } from '@/ui/words';
import { openInstrument } from '@/instruments/instrument';
import { plugIn } from '@/instruments/plugged-in';
import { StripKey } from './strip-key';

interface Box {
  readonly name: string;
  readonly live: boolean;
}

/** The bench boxes of the shop, to listen to one of them. */
export function PlugIn({ buildId, onDone }: { readonly buildId: string; readonly onDone: () => void }) {
  const [boxes, setBoxes] = useState<readonly Box[] | 'asking' | 'unreachable'>('asking');
  useEffect(() => {
    ask(api.instruments.$get()).then(
      ({ boxes: found }) => setBoxes(found),
      () => setBoxes('unreachable'),
    );
  }, []);
  const listen = (name: string): void => {
    plugIn(buildId, openInstrument(name, `/instruments/${name}/listen`));
    onDone();
  };
  return (
    <View testID="plug-in" className="border-t border-hairline px-3 py-1">
      {boxes === 'asking' ? (
        <Words look="soft">Looking for bench boxes.</Words>
      ) : boxes === 'unreachable' ? (
        <Words look="soft">
          The server cannot be reached, and instruments speak through it. Type the readings meanwhile.
        </Words>
      ) : boxes.length === 0 ? (
        <Words look="soft">
          The shop has no bench box yet.{' '}
          <Link href="/shop" className="font-medium text-brass">
            Give one a key
          </Link>{' '}
          first.
        </Words>
      ) : (
        <View className="flex-row flex-wrap">
          {boxes.map(({ name, live }) => (
            <StripKey
              key={name}
              testID={`box-${name}`}
              label={`${name}${live ? '' : ' (not plugged in)'}`}
              onPress={() => listen(name)}
            />
          ))}
        </View>
      )}
      <View className="items-start">
        <StripKey testID="plug-in-not" label="Not now" onPress={onDone} />
      </View>
    </View>
  );
}
