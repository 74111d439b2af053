import { vi } from 'vitest'

/** What a browser keeps, for tests that have none. */
export const shelf = new Map<string, string>()
vi.stubGlobal('localStorage', {
  get length() {
    return shelf.size
  },
  key: (at: number) => [...shelf.keys()][at] ?? null,
  getItem: (name: string) => shelf.get(name) ?? null,
  setItem: (name: string, value: string) => shelf.set(name, value),
  removeItem: (name: string) => shelf.delete(name),
})
