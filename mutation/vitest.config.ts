import { defineConfig } from 'vitest/config'

/** The tests that mutations of the core are held against: all but the slow properties, others on few cases. */
export default defineConfig({
  test: {
    include: ['core/src/**/*.test.ts'],
    exclude: ['**/*.{timing,property}.test.ts', '**/rules/examples.test.ts'],
    pool: 'threads',
    isolate: false,
    testTimeout: 60_000,
    env: { CASES: '12' },
  },
})
