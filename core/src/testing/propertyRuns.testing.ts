const usualCases = 200
const seed = Number(process.env['PROPERTY_SEED'] ?? 2026)

/**
 * How often fast-check tries a property: on 200 seeded cases in `npm test`, on as many as `CASES` says where it is set (the
 * fast loop sets few), and as often as the property deserves in `npm run test:deep`.
 * @param most cases of the deep run, at least 2,000
 */
export const propertyRuns = (most = 2000): { numRuns: number; seed: number } => ({
  numRuns: process.env['DEEP'] ? most : Math.min(most, Number(process.env['CASES'] ?? usualCases)),
  seed,
})
