import { defineConfig } from 'vitest/config'

const packages = '{core,interchange,contract,storage,cli,demo,platform,server,web}'
/** Long enough for a machine that is busy with other things, and for thousands of cases: what hangs is found all the same. */
const patience = { testTimeout: process.env['DEEP'] ? 1_800_000 : 60_000 }
/** Programs, databases and browsers: each file has its own of all of them, and two run at once. What they import is read once. */
const heavy = { testTimeout: 300_000, hookTimeout: 300_000, maxWorkers: 2 }

export default defineConfig({
  test: {
    // What is read by several projects is made into JavaScript once, and once for several runs.
    experimental: { fsModuleCache: true, fsModuleCachePath: '.local/transformed' },
    // All the cores there are: alone, the main process has little to do.
    maxWorkers: '100%',
    coverage: {
      provider: 'v8',
      reportsDirectory: '.local/coverage',
      reporter: ['json', ['text-summary', {}]],
      include: [`${packages}/src/**/*.{ts,tsx}`],
      exclude: [
        '**/*.test.ts',
        '**/*.test.tsx',
        '**/*.testing.ts',
        '**/*.testing.tsx',
        '**/*.examples.ts',
        '**/*.d.ts',
      ],
    },
    projects: [
      {
        test: {
          name: 'unit',
          pool: 'threads',
          isolate: false,
          include: [`${packages}/src/**/*.test.ts`],
          exclude: ['**/*.{property,timing,integration}.test.ts'],
          setupFiles: ['core/src/testing/seeded.testing.ts'],
          ...patience,
        },
      },
      {
        test: {
          name: 'screens',
          environment: 'jsdom',
          isolate: false,
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
          setupFiles: ['core/src/testing/seeded.testing.ts'],
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
          pool: 'threads',
          isolate: false,
          include: ['{storage,server,platform}/src/**/*.integration.test.ts'],
          // Kept code is no text in a global setup (Vitest 4.1), and breaks on the first error there: this one waits for a database.
          experimental: { fsModuleCache: false },
          globalSetup: ['storage/src/oneDatabase.testing.ts'],
          testTimeout: 120_000,
          hookTimeout: 240_000,
          sequence: { groupOrder: 2 },
        },
      },
      {
        test: {
          name: 'integration',
          globalSetup: ['e2e/preparedDemo.ts'],
          isolate: false,
          include: ['e2e/*.integration.test.ts', 'cli/src/*.integration.test.ts'],
          ...heavy,
          sequence: { groupOrder: 3 },
        },
      },
      {
        test: {
          name: 'faults',
          globalSetup: ['e2e/preparedDemo.ts'],
          include: ['e2e/*.faults.test.ts'],
          ...heavy,
          testTimeout: 900_000,
          fileParallelism: false,
          sequence: { groupOrder: 4 },
        },
      },
      {
        test: {
          name: 'browser',
          globalSetup: ['e2e/preparedDemo.ts'],
          isolate: false,
          include: ['e2e/*.browser.test.ts'],
          ...heavy,
          sequence: { groupOrder: 3 },
        },
      },
      {
        test: {
          name: 'walls',
          include: ['scripts/*.test.ts'],
          ...heavy,
          sequence: { groupOrder: 3 },
        },
      },
    ],
  },
})
