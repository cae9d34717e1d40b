/** Whether a result holds on a date; binds it twice. */
export const holdsOn =
  '(check_results.holds_from IS NULL OR check_results.holds_from <= ?) AND (check_results.holds_until IS NULL OR check_results.holds_until > ?)'

/**
 * The id of a course's current check on a date: of the results that hold then, the latest that was told since what the course
 * is held to last changed (a waiver, an attestation, a join), by the machine's clock. None where all are older. This is the
 * one place that says so.
 * Binds the date twice.
 * @param course SQL of the course's id
 */
export const currentCheckOf = (course: string): string => `(
    SELECT check_results.id
    FROM check_results
    JOIN courses AS held ON held.id = check_results.course_id
    WHERE check_results.course_id = ${course}
      AND ${holdsOn}
      AND check_results.told_at >= COALESCE(held.held_anew_at, '1000-01-01')
    ORDER BY check_results.told_at DESC, check_results.id DESC
    LIMIT 1
  )`
