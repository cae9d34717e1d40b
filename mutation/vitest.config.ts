import { defineConfig } from 'vitest/config'
import { area } from './areas.mjs'

/** The tests that the faults of an area are held against: its own, and properties, on few cases, where it is held by them. */
export default defineConfig({
  test: {
    include: area().tests,
    exclude: ['properties' in area() ? '**/*.timing.test.ts' : '**/*.{timing,property}.test.ts'],
    pool: 'threads',
    isolate: false,
    testTimeout: 60_000,
    env: { CASES: '12' },
    ...('database' in area() ? { globalSetup: ['storage/src/oneDatabase.testing.ts'] } : {}),
  },
})
