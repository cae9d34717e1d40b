/**
 * What is mutated, and the tests that must notice: those of the folder itself, and those that are about it. Whole folders where
 * that ends in an hour on two cores, else the files that decide.
 */
export const areas = {
  plan: {
    mutate: [
      'core/src/plan/{mergeCase,mergeFields,mergeName,mergePlace,places,proof,shortened}.ts',
    ],
    tests: ['core/src/plan/*.test.ts'],
    properties: true,
  },
  undo: {
    mutate: ['core/src/plan/undo/{bringBack,courseBack,ordersBack,setBack,takeAway,undoneBase}.ts'],
    tests: ['core/src/plan/**/*.test.ts'],
    properties: true,
  },
  check: {
    mutate: ['core/src/check/{checkCourse,exempting,exemption,mendCourse,places,telling}.ts'],
    tests: ['core/src/check/*.test.ts'],
  },
  findings: {
    mutate: ['core/src/check/{compareFindings,findings,harmlessMend,whoseMoves}.ts'],
    tests: ['core/src/check/*.test.ts'],
  },
  naming: {
    mutate: ['core/src/naming/{clash,fold,format,render,match}.ts'],
    tests: [
      'core/src/naming/*.test.ts',
      'core/src/naming/*/*.test.ts',
      'demo/src/nameCorpus.test.ts',
    ],
  },
  mend: {
    mutate: ['core/src/naming/mend/{placeWeight,weighing,writeAnew}.ts'],
    tests: ['core/src/naming/mend/*.test.ts', 'demo/src/nameCorpus.test.ts'],
  },
  queue: {
    mutate: [
      'server/src/queue/{tasks,commands,lease,nowAndThen,outcome,schemaGuard,transitions,worker}.ts',
    ],
    tests: ['server/src/queue/*.test.ts'],
    database: true,
  },
  signIn: {
    mutate: ['server/src/people/{people,sessions,signIn,signInTries}.ts'],
    tests: ['server/src/people/*.test.ts'],
    database: true,
  },
}

/** The area that is looked at now: `AREA` in the environment. */
export const area = () => {
  const found = areas[process.env.AREA ?? 'plan']
  if (!found) throw new Error(`AREA is one of ${Object.keys(areas).join(', ')}`)
  return found
}
