import { defineConfig } from 'vitest/config'

const heavy = { testTimeout: 120_000, hookTimeout: 240_000, fileParallelism: false }

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          pool: 'threads',
          isolate: false,
          include: [
            '{core,interchange,contract,storage,cli,demo,platform,server,web}/src/**/*.test.ts',
          ],
          exclude: ['**/*.integration.test.ts'],
        },
      },
      {
        test: {
          name: 'screens',
          testTimeout: 30_000,
          environment: 'jsdom',
          include: ['web/src/**/*.test.tsx'],
          setupFiles: ['web/src/testing/dom.testing.ts'],
        },
      },
      {
        test: {
          name: 'integration',
          include: [
            'e2e/*.integration.test.ts',
            '{storage,server,platform}/src/**/*.integration.test.ts',
          ],
          ...heavy,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          name: 'browser',
          include: ['e2e/*.browser.test.ts'],
          ...heavy,
          sequence: { groupOrder: 2 },
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
