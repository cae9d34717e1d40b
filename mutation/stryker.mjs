/**
 * Mutation testing: small faults are made in the code one at a time, and the tests that reach them must notice.
 * `npm run test:mutation -- --mutate core/src/plan/mergeCase.ts` looks at one file.
 * @type {import('@stryker-mutator/api/core').PartialStrykerOptions}
 */
export default {
  plugins: ['@stryker-mutator/vitest-runner'],
  testRunner: 'vitest',
  vitest: { configFile: 'mutation/vitest.config.ts' },
  mutate: [
    'core/src/plan/{mergeCase,mergeFields,mergeName,mergePlace,places,proof,shortened}.ts',
    'core/src/plan/undo/{bringBack,courseBack,ordersBack,setBack,takeAway,undoneBase}.ts',
    'core/src/check/{exemption,silence}.ts',
    'core/src/naming/{clash,fold,format,render}.ts',
    'core/src/naming/mend/{placeWeight,weighing,writeAnew}.ts',
  ],
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
  reporters: ['clear-text', 'json'],
  clearTextReporter: { logTests: false, reportTests: false, allowColor: false },
  jsonReporter: { fileName: '.local/mutation.json' },
  cleanTempDir: 'always',
}
