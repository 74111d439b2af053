import { vi } from 'vitest'

/** Where a page is, for tests that have none. */
globalThis.location ??= new URL('http://127.0.0.1/') as unknown as Location

vi.mock('@/stores/settings', () => ({ useSettings: () => ({ who: '' }) })) // it wants a browser
