/** Where a page is, for tests that have none. */
globalThis.location ??= new URL('http://127.0.0.1/') as unknown as Location
