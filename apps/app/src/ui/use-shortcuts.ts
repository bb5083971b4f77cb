import { useEffect, useLayoutEffect, useRef } from 'react';
import { pressedBy } from './taught-keys';

/** Keys of the bench keyboard and what they do here. */
export type Shortcuts = Readonly<Record<string, () => void>>;

const OF_A_FIGURE = /^[\d.]$|^Backspace$/;

/** Does a key belong to what has the focus: a field that is typed in, a button that Enter presses, a picture that is marked by keys? */
function isTyped({ target, key }: KeyboardEvent): boolean {
  const focused = target instanceof HTMLElement ? target : null;
  const typing = focused?.closest('input, textarea');
  if (typing && typing.getAttribute('data-testid') !== 'reading') return true;
  if (typing && OF_A_FIGURE.test(key)) return true;
  return key === 'Enter' && focused?.closest('[role=button], [role=radio], [role=application], a') != null;
}

/** Listens for single keys, except while something other than a reading is being typed. */
export function useShortcuts(shortcuts: Shortcuts): void {
  const current = useRef(shortcuts);
  // Before the next key can come: Enter right after a digit must see that digit.
  useLayoutEffect(() => {
    current.current = shortcuts;
  });
  useEffect(() => {
    if (typeof document === 'undefined') return;
    const listen = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const pressed = pressedBy(event);
      if (!pressed) {
        event.preventDefault();
        return;
      }
      if (!pressed.taught && isTyped(event)) return;
      const act = current.current[pressed.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    // On the way down: a text field lets no key travel back up.
    document.addEventListener('keydown', listen, true);
    return () => document.removeEventListener('keydown', listen, true);
  }, []);
}
