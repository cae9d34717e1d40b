import { findingsOf, standsIn, type Finding } from '@wickerframe/core'
import type { followUpRoutes } from '@wickerframe/contract'
import { mayToCourse } from '../courses/visible.ts'
import type { HandlersOf } from '../http/handler.ts'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import {
  answerFollowUp,
  closeFollowUp,
  isRaised,
  pendingFollowUps,
  promiseFollowUp,
  raiseFollowUps,
  type RaisedPlace,
} from './followUps.ts'
import { ownerOf, raiseAndTell, type RaisedInCourse } from './raising.ts'
import { listChecks } from '../checks/checkDigests.ts'
import { findCheck, findingsOfCourses } from '../checks/checks.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { courseIn } from '../courses/routes.ts'

export const followUpHandlers: HandlersOf<typeof followUpRoutes> = {
  raiseEverywhere: async ({ pool, person, today, body: { note, ...target } }) => {
    const checks = await listChecks(pool, today)
    const courses = new Map(
      (await listCourses(pool, person, today))
        .filter(
          ({ summary: { id, status } }) =>
            status === 'teaching' && standsIn(checks.get(id)?.openMusts ?? [], target),
        )
        .map((stored) => [stored.summary.id, stored]),
    )
    const found: { stored: StoredCourse; findings: Finding[] }[] = []
    for await (const checked of findingsOfCourses(pool, [...courses.keys()], today))
      for (const [id, all] of checked) {
        const stored = courses.get(id)
        const findings = findingsOf(all, target)
        if (stored && findings.length > 0) found.push({ stored, findings })
      }
    const came = { places: 0, courses: 0, people: 0, nobodys: 0 }
    const people = new Set<string>()
    await inTransaction(pool, async (database) => {
      const pending = await pendingFollowUps(
        database,
        found.map(({ stored }) => stored.summary.id),
      )
      const toRaise: RaisedInCourse[] = []
      for (const { stored, findings } of found) {
        const raised = findings.flatMap((finding): RaisedPlace[] => {
          // What a course has from its template is nothing its people could have done better.
          const owner = finding.ofTemplate ? null : ownerOf(finding, stored)
          return owner === null
            ? []
            : finding.places
                .filter(({ fingerprint }) => !pending.get(stored.summary.id)?.has(fingerprint))
                .map(({ fingerprint, message }) => ({
                  courseId: stored.summary.id,
                  fingerprint,
                  owner,
                  message,
                  note,
                  by: person.email,
                }))
        })
        if (findings.some((finding) => !finding.ofTemplate && ownerOf(finding, stored) === null))
          came.nobodys += 1
        if (raised.length === 0) continue
        toRaise.push({ stored, raised })
        came.courses += 1
        came.places += raised.length
        for (const { owner } of raised) people.add(owner)
      }
      await raiseAndTell(database, toRaise)
      await recordAudit(database, {
        who: person.email,
        what: 'finding: raise everywhere',
        subject: `rule ${target.rule}`,
        to: { ...target, note, ...came, people: people.size },
      })
    })
    return { ...came, people: people.size }
  },
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
    const findings =
      put.does === 'raise' || put.does === 'promise'
        ? ((await findCheck(pool, id, query.asOf ?? today))?.findings ?? [])
        : []
    const raised = (fingerprint: string): RaisedPlace => {
      const finding = findings.find(({ places }) =>
        places.some((place) => place.fingerprint === fingerprint),
      )
      const place = finding?.places.find((place) => place.fingerprint === fingerprint)
      if (!finding || !place)
        throw notFound('finding in the latest check of the course; check it again')
      const asked = put.does === 'raise' ? put : null
      const owner = asked?.owner ?? ownerOf(finding, stored)
      if (owner === null)
        throw new HttpProblem(
          409,
          'nobody',
          'the course has no instructor; say with whom it is raised',
        )
      const note = asked?.note ?? ''
      return { courseId: id, fingerprint, owner, message: place.message, note, by: person.email }
    }
    await inTransaction(pool, async (database) => {
      if (put.does === 'raise')
        await raiseAndTell(database, [
          { stored, raised: [...new Set(put.fingerprints)].map(raised) },
        ])
      else
        for (const fingerprint of new Set(put.fingerprints)) {
          if (put.does === 'promise' && !(await isRaised(database, id, fingerprint)))
            await raiseFollowUps(database, [raised(fingerprint)])
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
