import { useColorScheme } from 'nativewind';
import { useEffect } from 'react';
import { useAppSelector } from '@/store/store';
import { palette } from './palette';

export type Palette = typeof palette.dye;

/** The colours in force, for pictures; everything else takes them from class names. */
export function useTheme(): Palette {
  const { colorScheme } = useColorScheme();
  return colorScheme === 'dark' ? palette.dye : palette.sheet;
}

const SCHEMES = { system: 'system', dye: 'dark', sheet: 'light' } as const;

/** Puts the builder's choice of theme into force. */
export function useChosenTheme(): void {
  const theme = useAppSelector((state) => state.settings.theme);
  const { setColorScheme } = useColorScheme();
  useEffect(() => setColorScheme(SCHEMES[theme]), [theme, setColorScheme]);
}
