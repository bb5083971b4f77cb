import type { Place } from './station-line';

/** Where both hands are on the engine: the screen stays awake, and nobody is interrupted. */
const HANDS_ON: ReadonlySet<string> = new Set<Place>([
  'zero',
  'read',
  'lobes',
  'trace',
  'move',
  'prove',
  'clear',
  'rockers',
  'lash',
]);

/** `isHandsOn('/builds/…/read')` is true. */
export const isHandsOn = (path: string): boolean => HANDS_ON.has(path.split('/').at(-1) ?? '');

/** A screen across the shop, at which nobody stands to press anything. */
export const isUnattended = (path: string): boolean => path === '/board';
