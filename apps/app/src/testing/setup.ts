import * as React from 'react';

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

/**
 * React keeps of each element where it was made, for its own warnings, ten thousand in a second at most. Nothing here reads it, and it took a fifth of the
 * processor of the longest of these checks: so it is told that it has kept them already. Where React no longer counts so, this does nothing.
 */
const INTERNALS = '__CLIENT_INTERNALS_DO_NOT_USE_OR_WARN_USERS_THEY_CANNOT_UPGRADE';
const internals = (React as Readonly<Record<string, unknown>>)[INTERNALS];
if (typeof internals === 'object' && internals !== null)
  Object.defineProperty(internals, 'recentlyCreatedOwnerStacks', { get: () => Infinity, set: () => undefined });
