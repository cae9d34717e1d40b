import type { CourseDetail, courseRoutes } from '@wickerframe/contract'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { inTransaction } from '@wickerframe/storage'
import { expectationOf } from '../rollouts/deploymentPlan.ts'
import { checkAgain } from '../checks/checkStored.ts'
import { recordAudit } from '../audit/audit.ts'
import { findCheck } from '../checks/checks.ts'
import { careOf } from './courseCare.ts'
import { adoptStrengths, findCourse, listCourses, putUnder, type StoredCourse } from './courses.ts'
import { deploymentsOf } from '../rollouts/deployments.ts'
import { findMerge, mergedInto } from '../roster/classSectionMerges.ts'
import { findSnapshot } from '../snapshots/snapshots.ts'
import { findVersion, findVersionById } from '../templates/templates.ts'
import { mayToCourse, rolesAbout } from './visible.ts'
import { HttpProblem, notFound } from '../http/problem.ts'

/** What is asked about one course, as it stands on a day: today unless the question names another. */
export interface AboutCourse extends Situation {
  at: { course: number }
  query: { asOf?: string | undefined }
}

/**
 * The course of the address, if it is there and theirs to see.
 * @throws HttpProblem 403 where it is theirs to see, but not to do this to
 */
export const courseIn = async ({
  pool,
  person,
  may,
  today,
  at,
  query,
}: AboutCourse): Promise<StoredCourse> => {
  const stored = await findCourse(pool, at.course, person, query.asOf ?? today)
  if (!stored) throw notFound('course')
  if (
    may !== 'anyone' &&
    may !== 'see courses' &&
    !(await mayToCourse(pool, person, may, stored.summary.id))
  )
    throw new HttpProblem(
      403,
      'assistant',
      'you help in this course; this is for those who teach it',
    )
  return stored
}

/** Courses by their ids, all of them. @throws HttpProblem 404 when one is not there */
export const coursesOf = async (
  { pool, person, today }: Situation,
  ids: readonly number[],
): Promise<StoredCourse[]> => {
  const wanted = new Set(ids)
  const found = (await listCourses(pool, person, today)).filter((stored) =>
    wanted.has(stored.summary.id),
  )
  if (found.length < wanted.size) throw notFound('course among those chosen')
  return found
}

const mergesOf = async (
  { pool, person, today }: Situation,
  id: number,
): Promise<Pick<CourseDetail, 'mergedInto' | 'mergedHere'>> => {
  const told = async (other: number) => {
    const stored = await findCourse(pool, other, person, today)
    if (!stored) return []
    const { code, title, classSections } = stored.summary
    return [{ id: other, name: `${code} ${title}, ${classSections.join(', ')}` }]
  }
  const merge = await findMerge(pool, id)
  const here = await mergedInto(pool, id)
  return {
    mergedInto: merge ? ((await told(merge.into))[0] ?? null) : null,
    mergedHere: (await Promise.all(here.map(told))).flat(),
  }
}

export const courseHandlers: HandlersOf<typeof courseRoutes> = {
  listCourses: async ({ pool, person, today, query }) =>
    (await listCourses(pool, person, query.asOf ?? today)).map((stored) => stored.summary),
  readCourse: async (handling) => {
    const { pool, person, today, query } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const asOf = query.asOf ?? today
    // What is shown is always of what is stored: where it changed since, or another day is looked at, it is checked now. The
    // platform is not asked.
    if (stored.templateId !== null && stored.summary.readAt !== null)
      await checkAgain(pool, stored, asOf, today)
    return {
      ...stored.summary,
      facts: stored.facts,
      templateDocument: await expectationOf(pool, stored),
      snapshot: (await findSnapshot(pool, id))?.course ?? null,
      result: await findCheck(pool, id, asOf),
      history: await deploymentsOf(pool, id),
      ...(await mergesOf(handling, id)),
      strengthsVersion: stored.strengthsVersion,
      care: await careOf(pool, id, today),
      roles: await rolesAbout(pool, person, id),
    }
  },
  factsOfCourse: async (handling) => (await courseIn(handling)).facts,
  putUnderVersion: async (handling) => {
    const { pool, person, body } = handling
    const stored = await courseIn(handling)
    const { template, version } = body
    const found = await findVersion(pool, template, version)
    if (!found) throw notFound('version')
    if (stored.summary.state === 'deployed')
      throw new HttpProblem(
        409,
        'deployed',
        'the course is held to the version that was deployed to it',
      )
    await inTransaction(pool, async (database) => {
      await putUnder(database, stored.summary.id, found)
      await recordAudit(database, {
        who: person.email,
        what: 'put under a version for checking',
        subject: `course ${stored.summary.id}`,
        to: { template, version },
      })
    })
    return {}
  },
  /** Checks a course by the strengths and parameters of a newer version; its parts, names and texts stay those of its own. */
  adoptStrengths: async (handling) => {
    const { pool, person, body } = handling
    const stored = await courseIn(handling)
    const { version } = body
    const { id } = stored.summary
    if (stored.templateId === null || stored.version === null)
      throw new HttpProblem(409, 'no-version', 'the course is under no version')
    if (version !== null && !(await findVersionById(pool, stored.templateId, version)))
      throw notFound('version')
    if (version !== null && version < stored.version)
      throw new HttpProblem(
        409,
        'older',
        `the course is under version ${stored.version}; only a newer one's strengths can be adopted`,
      )
    await inTransaction(pool, async (database) => {
      await adoptStrengths(database, id, version)
      await recordAudit(database, {
        who: person.email,
        what: 'strengths adopted',
        subject: `course ${id}`,
        from: stored.strengthsVersion,
        to: version,
      })
    })
    return {}
  },
}
