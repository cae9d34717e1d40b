import { area } from './areas.mjs'

/**
 * Mutation testing: small faults are made in the code one at a time, and the tests that reach them must notice.
 * @type {import('@stryker-mutator/api/core').PartialStrykerOptions}
 */
export default {
  plugins: ['@stryker-mutator/vitest-runner'],
  testRunner: 'vitest',
  vitest: { configFile: 'mutation/vitest.config.ts', related: false },
  mutate: area().mutate,
  ignorePatterns: ['.local', 'docs/screenshots', '**/.types', '**/dist'],
  coverageAnalysis: 'perTest',
  // What is made when a file loads is the same for all tests: every one of them would have to run for it.
  ignoreStatic: true,
  // There is no compiler API in our TypeScript: the runner strips types by itself.
  disableTypeChecks: false,
  tsconfigFile: 'mutation/no-tsconfig.json',
  concurrency: 2,
  timeoutMS: 20_000,
  tempDirName: '.local/mutation',
  reporters: ['clear-text', 'json', 'progress-append-only'],
  clearTextReporter: { logTests: false, reportTests: false, allowColor: false },
  jsonReporter: { fileName: `.local/mutation-${process.env.AREA ?? 'plan'}.json` },
  cleanTempDir: 'always',
}
