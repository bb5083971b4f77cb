import { useColorScheme } from 'nativewind';
import { useEffect } from 'react';
import { useColorScheme as useDeviceScheme } from 'react-native';
import { selectSettings } from '@/store/settings-slice';
import { useAppSelector } from '@/store/store';
import { palette } from './palette';

export type Palette = typeof palette.dye;

/** The colours in force, for pictures; everything else takes them from class names. */
export function useTheme(): Palette {
  const { colorScheme } = useColorScheme();
  return colorScheme === 'dark' ? palette.dye : palette.sheet;
}

const SCHEMES = { dye: 'dark', sheet: 'light' } as const;

/**
 * Puts the builder's choice of theme into force. What the device says is put into force like a choice: the style sheet goes by a class
 * alone, and pictures and page would part if one followed the device and the other the class.
 */
export function useChosenTheme(): void {
  const theme = useAppSelector(selectSettings).theme;
  const device = useDeviceScheme() === 'dark' ? 'dark' : 'light';
  const { setColorScheme } = useColorScheme();
  const scheme = theme === 'system' ? device : SCHEMES[theme];
  useEffect(() => setColorScheme(scheme), [scheme, setColorScheme]);
}
