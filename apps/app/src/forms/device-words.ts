const KINDS: readonly (readonly [RegExp, string])[] = [
  [/iPad|Tablet/, 'A tablet'],
  [/Mobi|Android|iPhone/, 'A phone'],
  [/Windows|Macintosh|Linux|CrOS/, 'A computer'],
];

/** What kind of device a browser says that it runs on. */
export const deviceWords = (agent: string): string => KINDS.find(([pattern]) => pattern.test(agent))?.[1] ?? 'A device';
