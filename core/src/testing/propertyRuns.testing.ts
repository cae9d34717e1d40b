const seededCases = 200
const seed = Number(process.env['PROPERTY_SEED'] ?? 2026)

/**
 * How often fast-check tries a property: on 200 seeded cases in `npm test`, and so often as the property deserves in
 * `npm run test:deep`.
 * @param most cases of the deep run; at least 2,000 unless one case takes seconds
 */
export const propertyRuns = (most: number): { numRuns: number; seed: number } => ({
  numRuns: process.env['DEEP'] === undefined ? Math.min(most, seededCases) : most,
  seed,
})
