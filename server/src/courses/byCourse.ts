/** Rows by the course they are of, in their order. */
export const byCourse = <T extends { course_id: number }>(rows: readonly T[]): Map<number, T[]> => {
  const groups = new Map<number, T[]>()
  for (const row of rows) {
    const group = groups.get(row.course_id)
    if (group) group.push(row)
    else groups.set(row.course_id, [row])
  }
  return groups
}
