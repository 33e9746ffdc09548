/**
 * The little of a browser that state modules touch, for tests in Node.js.
 */
export function stubBrowser(): { storage: Map<string, string> } {
  const storage = new Map<string, string>();
  const target = globalThis as Record<string, unknown>;
  target.localStorage = {
    getItem: (key: string) => storage.get(key) ?? null,
    setItem: (key: string, value: string) => storage.set(key, value),
    removeItem: (key: string) => storage.delete(key),
    key: (i: number) => [...storage.keys()][i] ?? null,
    get length() {
      return storage.size;
    },
  };
  target.navigator ??= {};
  target.window = { addEventListener: () => {}, dispatchEvent: () => true };
  return { storage };
}
