import { createRequire } from 'node:module';
import path from 'node:path';

const load = createRequire(import.meta.url);
const font = (family: string, weight: string, file: string): string =>
  path.join(path.dirname(load.resolve(`@expo-google-fonts/${family}/package.json`)), weight, `${file}.ttf`);
export const semi = (weight: string): string => font('barlow-semi-condensed', weight, `BarlowSemiCondensed_${weight}`);
export const plain = (weight: string): string => font('barlow', weight, `Barlow_${weight}`);

/** For what is drawn: the same letters as on the screen. */
export const FONT_FILES = { plain: plain('400Regular'), bold: plain('600SemiBold') } as const;
