import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { ZERO_METHODS, ZERO_METHOD_NAMES, type ZeroMethodName } from '@yosoku/core/crank/zero-methods';
import { zeroRuled } from '@/store/session-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Refusal, api, ask } from '@/sync/api';
import { More } from '@/ui/more';
import { Words } from '@/ui/words';

/** The shop's own rule for finding TDC: proposed wherever the engine allows it. The owner sets it. */
export function ZeroRule() {
  const dispatch = useAppDispatch();
  const account = useAppSelector((state) => state.session.account);
  const [trouble, setTrouble] = useState<string | null>(null);
  const rule = account?.zeroRule ?? null;
  const set = async (method: ZeroMethodName | null): Promise<void> => {
    setTrouble(null);
    try {
      await ask(api.shop['zero-rule'].$put({ json: { method } }));
      dispatch(zeroRuled(method));
    } catch (error) {
      setTrouble(
        error instanceof Refusal ? error.detail : 'The server cannot be reached. Nothing was changed; try again.',
      );
    }
  };
  const words = rule === null ? 'As the engine allows' : ZERO_METHODS[rule].name;
  return (
    <View className="gap-1">
      <Words look="heading" level={2}>
        How this shop finds TDC
      </Words>
      <Words testID="zero-rule">{words}</Words>
      {account?.role === 'owner' ? (
        <More label="Set a rule" testID="set-zero-rule">
          <View role="radiogroup" aria-label="How this shop finds TDC">
            {[null, ...ZERO_METHOD_NAMES].map((name) => (
              <Pressable
                key={name ?? 'none'}
                role="radio"
                testID={`rule-${name ?? 'none'}`}
                aria-checked={rule === name}
                onPress={() => void set(name)}
                className={`min-h-[48px] justify-center border-b border-l-4 border-b-hairline px-3 ${rule === name ? 'border-l-brass bg-raised' : 'border-l-transparent'}`}
              >
                <Words look="label">{name === null ? 'As the engine allows' : ZERO_METHODS[name].name}</Words>
              </Pressable>
            ))}
          </View>
        </More>
      ) : null}
      {trouble ? (
        <Words role="alert" tone="danger">
          {trouble}
        </Words>
      ) : null}
    </View>
  );
}
