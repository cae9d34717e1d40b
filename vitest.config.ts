import { defineConfig } from 'vitest/config'

const packages = '{core,interchange,contract,storage,cli,demo,platform,server,web}'
/** Long enough for a machine that is busy with other things: what hangs is found all the same. */
const patience = { testTimeout: 60_000 }
/** Programs, databases and browsers, one file at a time. */
const heavy = { testTimeout: 120_000, hookTimeout: 240_000, fileParallelism: false }

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          pool: 'threads',
          isolate: false,
          include: [`${packages}/src/**/*.test.ts`],
          exclude: ['**/*.{property,timing,integration}.test.ts'],
          ...patience,
        },
      },
      {
        test: {
          name: 'screens',
          environment: 'jsdom',
          include: ['web/src/**/*.test.tsx'],
          setupFiles: ['web/src/testing/dom.testing.ts'],
          ...patience,
        },
      },
      {
        test: {
          name: 'properties',
          pool: 'threads',
          isolate: false,
          include: [`${packages}/src/**/*.property.test.ts`],
          testTimeout: 1_800_000,
        },
      },
      {
        test: {
          name: 'timings',
          pool: 'forks',
          include: [`${packages}/src/**/*.timing.test.ts`],
          ...patience,
          fileParallelism: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          name: 'server',
          include: ['{storage,server,platform}/src/**/*.integration.test.ts'],
          globalSetup: ['server/src/oneDatabase.testing.ts'],
          testTimeout: 120_000,
          hookTimeout: 240_000,
          sequence: { groupOrder: 2 },
        },
      },
      {
        test: {
          name: 'integration',
          include: ['e2e/*.integration.test.ts'],
          ...heavy,
          sequence: { groupOrder: 3 },
        },
      },
      {
        test: {
          name: 'faults',
          include: ['e2e/*.faults.test.ts'],
          ...heavy,
          testTimeout: 600_000,
          sequence: { groupOrder: 3 },
        },
      },
      {
        test: {
          name: 'browser',
          include: ['e2e/*.browser.test.ts'],
          ...heavy,
          sequence: { groupOrder: 4 },
        },
      },
      {
        test: {
          name: 'walls',
          include: ['scripts/*.test.ts'],
          ...heavy,
          sequence: { groupOrder: 5 },
        },
      },
    ],
  },
})
