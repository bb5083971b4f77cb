/** What a browser has and this environment lacks: keys pressed on the page, and somewhere to go. */

type Listener = (event: unknown) => void;
const listeners = new Map<string, Set<Listener>>();

const page = {
  addEventListener: (type: string, listener: Listener): void => {
    listeners.set(type, (listeners.get(type) ?? new Set()).add(listener));
  },
  removeEventListener: (type: string, listener: Listener): void => void listeners.get(type)?.delete(listener),
  visibilityState: 'visible',
};
Object.assign(globalThis, { document: page, HTMLElement: class {} });
Object.assign(window, page);

/** Tells the page that a key was pressed, as the browser would. */
export function keyDown(key: string, more: { readonly code?: string; readonly timeStamp?: number } = {}): void {
  const nothing = (): void => undefined;
  const event = {
    key,
    target: null,
    ctrlKey: false,
    metaKey: false,
    altKey: false,
    preventDefault: nothing,
    stopImmediatePropagation: nothing,
    ...more,
  };
  for (const listener of listeners.get('keydown') ?? []) listener(event);
}
