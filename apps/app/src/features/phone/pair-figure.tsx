import { Text } from 'react-native';

/** The number that bench and phone show alike, to be compared by eye across the shop. */
export const PairFigure = ({ figure }: { readonly figure: string }) => (
  <Text
    testID="figure"
    className="font-figures-bold text-[96px] leading-[104px] text-ink"
    style={{ fontVariant: ['tabular-nums'] }}
  >
    {figure}
  </Text>
);
