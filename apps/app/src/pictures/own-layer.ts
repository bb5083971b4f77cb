import { useEffect, useRef } from 'react';
import type { View } from 'react-native';
import type { Turning } from './turning';

const REST_MS = 250;

/**
 * For a picture that turns as a whole: while it turns, the browser moves it as one layer instead of painting it anew at every frame; at rest it
 * is painted sharp again, where it stands.
 */
export function useOwnLayer(turning: Turning) {
  const picture = useRef<View>(null);
  useEffect(() => {
    const node = picture.current as unknown as HTMLElement | null;
    // Nothing of the kind outside a browser.
    if (!node?.style) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const id = turning.value.addListener(() => {
      node.style.willChange = 'transform';
      clearTimeout(timer);
      timer = setTimeout(() => (node.style.willChange = 'auto'), REST_MS);
    });
    return () => {
      clearTimeout(timer);
      turning.value.removeListener(id);
    };
  }, [turning]);
  return picture;
}
