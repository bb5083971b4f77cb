import { useEffect, useLayoutEffect, useRef } from 'react';

/** Keys of the bench keyboard and what they do here. */
export type Shortcuts = Readonly<Record<string, () => void>>;

const OF_A_FIGURE = /^[\d.]$|^Backspace$/;

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
      const target = event.target instanceof HTMLElement ? event.target : null;
      const typing = target?.closest('input, textarea');
      if (typing && typing.getAttribute('data-testid') !== 'reading') return;
      if (typing && OF_A_FIGURE.test(event.key)) return;
      // Enter on a button presses the button.
      if (event.key === 'Enter' && target?.closest('[role=button], [role=radio], a')) return;
      const act = current.current[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    // On the way down: a text field lets no key travel back up.
    document.addEventListener('keydown', listen, true);
    return () => document.removeEventListener('keydown', listen, true);
  }, []);
}
