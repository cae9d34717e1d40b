import type { joinRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import { recordAudit } from '../audit/audit.ts'
import { forgetJoin, putJoin } from './joins.ts'
import { findCheck } from '../checks/checks.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { courseIn } from '../courses/routes.ts'
import { andCheckAgain } from '../checks/toldAt.ts'

export const joinHandlers: HandlersOf<typeof joinRoutes> = {
  joinPair: async (handling) => {
    const { person, pool, today, query, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { what, expected, found } = body
    const result = await findCheck(pool, id, query.asOf ?? today)
    if (!result)
      throw new HttpProblem(
        409,
        'not-checked',
        'the course has not been checked yet, so there is nothing to join',
      )
    const instances = new Set([...result.pairs.map((pair) => pair.expected), ...result.missing])
    const ids = new Set([...result.pairs.map((pair) => pair.found), ...result.extra])
    if (what !== 'forget' && !instances.has(expected))
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /expected: found ${expected}; expected an instance of the course’s template`,
      )
    if (what !== 'forget' && !ids.has(found))
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /found: found ${found}; expected the id of a module or item of the course`,
      )
    return andCheckAgain(handling, stored, async (database) => {
      if (what === 'forget') {
        if (!(await forgetJoin(database, id, expected, found))) throw notFound('join')
      } else await putJoin(database, id, { what, expected, found }, person.email)
      await recordAudit(database, {
        who: person.email,
        what: `pair: ${what}`,
        subject: `course ${id}`,
        to: { expected, found },
      })
    })
  },
}
