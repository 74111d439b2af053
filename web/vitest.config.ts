import { defineConfig, mergeConfig } from 'vitest/config'

import vite from './vite.config'

// Apart from what builds the application: who only serves it fetches no packages for tests.
export default mergeConfig(
  vite,
  defineConfig({
    // Each file has a world of its own, without a thread of its own: with a single one, they would share it.
    test: { setupFiles: ['src/testing/place.ts'], pool: 'vmThreads', maxWorkers: 2 },
  }),
)
