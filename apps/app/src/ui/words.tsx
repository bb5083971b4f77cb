import type { ReactNode } from 'react';
import { Text, type TextProps } from 'react-native';

const LOOKS = {
  title: 'font-bold text-[26px] leading-[32px]',
  heading: 'font-bold text-[18px] leading-[24px]',
  sentence: 'font-medium text-[20px] leading-[26px]',
  body: 'font-sans text-[17px] leading-[23px]',
  label: 'font-medium text-[16px] leading-[22px]',
  soft: 'font-sans text-[15px] leading-[20px]',
  figure: 'font-figures text-[17px] leading-[23px]',
} as const;

/** The one colour of a text. Two colour classes on one text would be settled by their order in the style sheet. */
const TONES = {
  ink: 'text-ink',
  soft: 'text-soft',
  brass: 'text-brass',
  intake: 'text-intake',
  exhaust: 'text-exhaust',
  danger: 'text-danger',
  onPaper: 'text-onPaper',
} as const;

export type Tone = keyof typeof TONES;

interface WordsProps extends TextProps {
  readonly look?: keyof typeof LOOKS;
  /** Soft for the soft look, ink for the others, unless said. */
  readonly tone?: Tone;
  readonly children: ReactNode;
  /** Level of a heading, for screen readers. */
  readonly level?: 1 | 2 | 3;
}

/** Text in one of the few sizes that the app uses. Figures stand in columns. */
export function Words({
  look = 'body',
  tone = look === 'soft' ? 'soft' : 'ink',
  level,
  className = '',
  style,
  ...rest
}: WordsProps) {
  const heading = level ? ({ role: 'heading', 'aria-level': level } as const) : {};
  return (
    <Text
      {...heading}
      {...rest}
      className={`${LOOKS[look]} ${TONES[tone]} ${className}`}
      style={[{ fontVariant: ['tabular-nums'] }, style]}
    />
  );
}
