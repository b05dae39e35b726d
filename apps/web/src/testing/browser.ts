import 'fake-indexeddb/auto';

/** What a browser keeps as text; `most` bytes of it at most. */
function textStorage(most = Number.POSITIVE_INFINITY): Storage & { most: number } {
  const held = new Map<string, string>();
  const size = () => [...held].reduce((n, [key, value]) => n + key.length + value.length, 0);
  const storage = {
    most,
    get length() {
      return held.size;
    },
    key: (n: number) => [...held.keys()][n] ?? null,
    getItem: (key: string) => held.get(key) ?? null,
    setItem(key: string, value: string) {
      const before = held.get(key);
      held.set(key, String(value));
      if (size() <= storage.most) return;
      if (before === undefined) held.delete(key);
      else held.set(key, before);
      throw new DOMException('full', 'QuotaExceededError');
    },
    removeItem: (key: string) => void held.delete(key),
    clear: () => held.clear(),
  };
  return storage;
}

/** The parts of a browser that state and storage need, for tests without one. */
export const storage = textStorage();
const listeners = new Map<string, Set<(event: Event) => void>>();
const without = {
  navigator: {},
  matchMedia: () => ({ matches: false }),
  addEventListener: (type: string, listen: (event: Event) => void) =>
    listeners.set(type, (listeners.get(type) ?? new Set()).add(listen)),
  removeEventListener: (type: string, listen: (event: Event) => void) => listeners.get(type)?.delete(listen),
  dispatchEvent(event: Event) {
    for (const listen of listeners.get(event.type) ?? []) listen(event);
    return true;
  },
};
// a test of components has a page of its own
Object.assign(globalThis, { localStorage: storage, ...(typeof document === 'undefined' ? without : {}) });
