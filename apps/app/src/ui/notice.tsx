import OctagonAlert from 'lucide-react-native/icons/octagon-alert';
import TriangleAlert from 'lucide-react-native/icons/triangle-alert';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useTheme } from './theme';
import { Words } from './words';

interface NoticeProps {
  readonly kind: 'warning' | 'danger';
  readonly message: string;
  readonly remedy?: string;
  readonly children?: ReactNode;
  readonly testID?: string;
}

const SIGN = { warning: TriangleAlert, danger: OctagonAlert } as const;

/** Something that does not fit, and what to do: a sign, a rule in its colour, and words. */
export function Notice({ kind, message, remedy, children, testID }: NoticeProps) {
  const theme = useTheme();
  const Sign = SIGN[kind];
  return (
    <View
      role="alert"
      testID={testID}
      className={`flex-row gap-3 border-l-4 py-2 pl-3 ${kind === 'danger' ? 'border-danger' : 'border-warning'}`}
    >
      <View aria-hidden className="pt-[2px]">
        <Sign size={20} color={theme[kind]} />
      </View>
      <View className="shrink grow gap-1">
        <Words look="label">{message}</Words>
        {remedy ? <Words look="soft">{remedy}</Words> : null}
        {children}
      </View>
    </View>
  );
}
