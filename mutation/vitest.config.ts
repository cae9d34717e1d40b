import { defineConfig } from 'vitest/config'

/** The tests that mutations of the core are held against: examples, and properties on few cases. */
export default defineConfig({
  test: {
    include: ['core/src/**/*.test.ts'],
    exclude: ['**/*.timing.test.ts', '**/{ownWriting,mends,holds}.property.test.ts'],
    testTimeout: 60_000,
    env: { CASES: '12' },
  },
})
