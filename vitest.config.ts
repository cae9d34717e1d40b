import { defineConfig } from 'vitest/config'

const heavy = { testTimeout: 120_000, hookTimeout: 240_000, fileParallelism: false }

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'unit', include: ['{core,interchange,contract,cli,demo,platform,server,web}/**/*.test.ts'], exclude: ['**/node_modules/**', '**/*.integration.test.ts'] } },
      { test: { name: 'integration', include: ['{server,platform,scripts}/**/*.integration.test.ts'], ...heavy } },
      { test: { name: 'browser', include: ['e2e/*.test.ts'], ...heavy } },
    ],
  },
})
