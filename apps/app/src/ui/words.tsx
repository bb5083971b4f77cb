import type { ReactNode } from 'react';
import { Text, type TextProps } from 'react-native';

const LOOKS = {
  title: 'font-bold text-[26px] leading-[32px] text-ink',
  heading: 'font-bold text-[18px] leading-[24px] text-ink',
  sentence: 'font-medium text-[20px] leading-[26px] text-ink',
  body: 'font-sans text-[17px] leading-[23px] text-ink',
  label: 'font-medium text-[16px] leading-[22px] text-ink',
  soft: 'font-sans text-[15px] leading-[20px] text-soft',
  figure: 'font-figures text-[17px] leading-[23px] text-ink',
} as const;

interface WordsProps extends TextProps {
  readonly look?: keyof typeof LOOKS;
  readonly children: ReactNode;
  /** Level of a heading, for screen readers. */
  readonly level?: 1 | 2 | 3;
}

/** Text in one of the few sizes that the app uses. Figures stand in columns. */
export function Words({ look = 'body', level, className = '', style, ...rest }: WordsProps) {
  const heading = level ? ({ role: 'heading', 'aria-level': level } as const) : {};
  return (
    <Text
      {...heading}
      {...rest}
      className={`${LOOKS[look]} ${className}`}
      style={[{ fontVariant: ['tabular-nums'] }, style]}
    />
  );
}
