import type { AtHand } from '@yosoku/core/tdc/propose-zero';
import { ZERO_METHOD_NAMES, type ZeroMethodName } from '@yosoku/core/tdc/zero-methods';
import type { Report } from '@yosoku/core/report/report';
import { useDraft } from '@/store/use-draft';

export const HEAD = [
  { value: 'off', label: 'Off' },
  { value: 'on', label: 'On' },
] as const;

const AT_HAND: AtHand = { head: 'off', plugHole: true, wheel: true, indicator: false, oneWay: false };

/**
 * What is at hand and the method that was chosen instead, as they were said here, else at Prepare. Kept on the device meanwhile: a phone that is turned, or a page
 * that is reloaded, is another screen. What is said anew at Prepare goes before it.
 */
export function useAtHand(buildId: string, stated: Report['prepare']['asItStands']) {
  const { draft, change, done } = useDraft<keyof AtHand | 'method'>(`${buildId}/at-hand/${stated?.entry ?? ''}`);
  const said = (name: Exclude<keyof AtHand, 'head'>): boolean =>
    draft[name] === undefined ? (stated?.[name] ?? AT_HAND[name]) : draft[name] === 'yes';
  const at: AtHand = {
    head: HEAD.find(({ value }) => value === draft.head)?.value ?? stated?.head ?? AT_HAND.head,
    plugHole: said('plugHole'),
    wheel: said('wheel'),
    indicator: said('indicator'),
    oneWay: said('oneWay'),
  };
  const yes = (is: boolean): string => (is ? 'yes' : 'no');
  return {
    at,
    setAt: ({ head, plugHole, wheel, indicator, oneWay }: AtHand) =>
      change({
        head,
        plugHole: yes(plugHole),
        wheel: yes(wheel),
        indicator: yes(indicator),
        oneWay: yes(oneWay),
      }),
    other: ZERO_METHOD_NAMES.find((name) => name === draft.method) ?? null,
    setOther: (method: ZeroMethodName) => change({ method }),
    done,
  };
}
