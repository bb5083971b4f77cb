import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { ZERO_METHODS, ZERO_METHOD_NAMES } from '@yosoku/core/tdc/zero-methods';
import { READ_METHODS, RULING_METHODS } from '@yosoku/core/measure/read-methods';
import { type ShopRules, ruled } from '@/store/session-slice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Refusal, api, ask } from '@/sync/api';
import { More } from '@/ui/more';
import { Words } from '@/ui/words';

/** How the shop finds TDC: proposed wherever the engine allows it. */
export function ZeroRule() {
  const rule = useAppSelector((state) => state.session.account?.zeroRule ?? null);
  return (
    <Rule
      testID="zero-rule"
      title="How this shop finds TDC"
      free="As the engine allows"
      rule={rule}
      choices={ZERO_METHOD_NAMES.map((value) => ({ value, label: ZERO_METHODS[value].name }))}
      rules={(zeroRule) => ({ zeroRule })}
    />
  );
}

/** How the shop reads a cam: proposed wherever the engine allows it, and what its verdicts speak from. */
export function ReadRule() {
  const rule = useAppSelector((state) => state.session.account?.readRule ?? null);
  return (
    <Rule
      testID="read-rule"
      title="What this shop judges a cam by"
      free="Everything that was measured, weighed together"
      rule={rule}
      choices={RULING_METHODS.map((value) => ({ value, label: READ_METHODS[value].name }))}
      rules={(readRule) => ({ readRule })}
    />
  );
}

interface RuleProps<Name extends string> {
  readonly testID: string;
  readonly title: string;
  /** What holds without a rule. */
  readonly free: string;
  readonly rule: Name | null;
  readonly choices: readonly { readonly value: Name; readonly label: string }[];
  readonly rules: (name: Name | null) => ShopRules;
}

/** One rule of the shop. Everyone sees it, the owner sets it. */
function Rule<Name extends string>({ testID, title, free, rule, choices, rules }: RuleProps<Name>) {
  const dispatch = useAppDispatch();
  const owner = useAppSelector((state) => state.session.account?.role === 'owner');
  const [trouble, setTrouble] = useState<string | null>(null);
  const set = async (name: Name | null): Promise<void> => {
    setTrouble(null);
    try {
      await ask(api.shop.rules.$put({ json: rules(name) }));
      dispatch(ruled(rules(name)));
    } catch (error) {
      setTrouble(
        error instanceof Refusal ? error.detail : 'The server cannot be reached. Nothing was changed; try again.',
      );
    }
  };
  return (
    <View className="gap-1">
      <Words look="heading" level={2}>
        {title}
      </Words>
      <Words testID={testID}>{choices.find(({ value }) => value === rule)?.label ?? free}</Words>
      {owner ? (
        <More label="Set a rule" testID={`set-${testID}`}>
          <View role="radiogroup" aria-label={title}>
            {[{ value: null, label: free }, ...choices].map(({ value, label }) => (
              <Pressable
                key={value ?? 'none'}
                role="radio"
                testID={`${testID}-${value ?? 'none'}`}
                aria-checked={rule === value}
                onPress={() => void set(value)}
                className={`min-h-[48px] justify-center border-b border-l-4 border-b-hairline px-3 ${rule === value ? 'border-l-brass bg-raised' : 'border-l-transparent'}`}
              >
                <Words look="label">{label}</Words>
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
