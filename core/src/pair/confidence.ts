const logistic = (weight: number): number => 1 / (1 + Math.exp(-weight))

/** Measured on the corpus: ahead of every other answer, evidence counts three times what its log-odds say. */
const slopeAhead = 3
/** And never more than this: about one in a thousand is wrong however clear it looks. */
const surest = 6.5

/**
 * Confidence in a pair: evidence and margin to the next best, the weaker of the two, as log-odds set right by the share
 * of such pairs that was right in a generated corpus (`npm run bench:pairing` prints it; calibration after Platt 1999,
 * from memory).
 * @param score log-odds of the pair by its evidence
 * @param margin how much it is ahead of the next best answer for either side
 */
export const calibrated = (score: number, margin: number): number => {
  const weaker = Math.min(score, margin)
  return (
    Math.round(1000 * logistic(weaker < 0 ? weaker : Math.min(surest, slopeAhead * weaker))) / 1000
  )
}

/** A pair told with less is not told: a missing part and an extra one say more than a wrong pair. */
export const leastConfidence = 0.25
