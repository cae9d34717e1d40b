import type { Answer } from '../connector/client.ts'
import { HttpProblem } from './problem.ts'

/** The platform's answer; a problem for people where it gave none. */
export const answered = <T>(answer: Answer<T>, what: string): T => {
  if (answer.state === 'answered') return answer.value
  throw new HttpProblem(
    502,
    'platform',
    `the platform did not ${what}: ${answer.detail}; ask again, and what is there already is not made twice`,
  )
}
