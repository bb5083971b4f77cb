import { render } from '@testing-library/react-native';
import type { ReactElement } from 'react';

/** A part of a picture: what it is, by what it is drawn, and what stands in it. */
interface Drawn {
  readonly type: string;
  readonly props: Readonly<Record<string, unknown>>;
  readonly children: readonly (Drawn | string)[] | null;
}

/** A part and everything within it, as deep as it goes. */
export const partsOf = (part: Drawn): Drawn[] => [
  part,
  ...(part.children ?? []).flatMap((child) => (typeof child === 'string' ? [] : partsOf(child))),
];

/** Every part of a picture. */
export const drawn = (picture: ReactElement): Drawn[] => partsOf(render(picture).toJSON() as unknown as Drawn);
