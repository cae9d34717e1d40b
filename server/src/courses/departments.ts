import { seesWholeCollege } from '@wickerframe/contract'
import { HttpProblem } from '../http/problem.ts'
import type { Person } from '../people/people.ts'

/**
 * Holds what somebody decides on against the departments they look after.
 * @param departments those that it is about; null: all of them
 * @throws HttpProblem 403 that names one that is not theirs
 */
export const mustLookAfter = (person: Person, departments: readonly (string | null)[]): void => {
  if (seesWholeCollege(person)) return
  const other = departments.find(
    (department) => department === null || !person.departments.includes(department),
  )
  if (other !== undefined)
    throw new HttpProblem(
      403,
      'other-department',
      `this is about ${other === null ? 'every department' : `the department ${other}`}, and you look after ${person.departments.join(', ')}`,
    )
}
