import type { followUpRoutes } from '@wickerframe/contract'
import { mayToCourse } from '../courses/visible.ts'
import type { HandlersOf } from '../http/handler.ts'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import {
  answerFollowUp,
  closeFollowUp,
  isRaised,
  promiseFollowUp,
  raiseFollowUp,
} from './followUps.ts'
import { findCheck } from '../checks/checks.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { courseIn } from '../courses/routes.ts'

export const followUpHandlers: HandlersOf<typeof followUpRoutes> = {
  followUp: async (handling) => {
    const { person, pool, today, query, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const put = body
    if (
      (put.does === 'raise' || put.does === 'close') &&
      !(await mayToCourse(pool, person, 'raise findings', id))
    )
      throw new HttpProblem(
        403,
        'role',
        'only a designer or an administrator raises or closes a finding',
      )
    if (put.does === 'promise' && put.by < today)
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /by: found ${put.by}; expected today or later`,
      )
    // Whoever promises what nobody raised yet raises it with that.
    const result =
      put.does === 'raise' || put.does === 'promise'
        ? await findCheck(pool, id, query.asOf ?? today)
        : null
    const raised = (fingerprint: string) => {
      const finding = result?.findings.find(({ places }) =>
        places.some((place) => place.fingerprint === fingerprint),
      )
      const place = finding?.places.find((place) => place.fingerprint === fingerprint)
      if (!finding || !place)
        throw notFound('finding in the latest check of the course; check it again')
      const asked = put.does === 'raise' ? put : null
      const owner =
        asked?.owner ?? finding.owner ?? stored.facts.owner ?? stored.facts.instructors[0]?.email
      if (owner === undefined)
        throw new HttpProblem(
          409,
          'nobody',
          'the course has no instructor; say with whom it is raised',
        )
      const note = asked?.note ?? ''
      return { fingerprint, owner, message: place.message, note, by: person.email }
    }
    await inTransaction(pool, async (database) => {
      for (const fingerprint of put.fingerprints) {
        if (put.does === 'raise') {
          await raiseFollowUp(database, id, raised(fingerprint))
          continue
        }
        if (put.does === 'promise' && !(await isRaised(database, id, fingerprint)))
          await raiseFollowUp(database, id, raised(fingerprint))
        const done =
          put.does === 'promise'
            ? await promiseFollowUp(database, id, fingerprint, put.by, put.answer, person.email)
            : put.does === 'answer'
              ? await answerFollowUp(database, id, fingerprint, put.answer, person.email)
              : await closeFollowUp(database, id, fingerprint)
        if (!done)
          throw new HttpProblem(
            409,
            'not-raised',
            'that finding is not raised, or it is settled already',
          )
      }
      await recordAudit(database, {
        who: person.email,
        what: `finding: ${put.does}`,
        subject: `course ${id}`,
        to: put,
      })
    })
    return {}
  },
}
