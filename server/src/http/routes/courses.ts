import { everyCourseItem } from '@wickerframe/core'
import { AdoptStrengths, PutUnder, type CourseDetail } from '@wickerframe/contract'
import { inTransaction } from '@wickerframe/storage'
import { expectationOf } from '../../jobs/deploymentPlan.ts'
import { judgeAgain } from '../../jobs/judgeCourse.ts'
import { recordAudit } from '../../repositories/audit.ts'
import { findCheck } from '../../repositories/checks.ts'
import { careOf } from '../../repositories/courseCare.ts'
import {
  adoptStrengths,
  findCourse,
  listCourses,
  putUnder,
  type StoredCourse,
} from '../../repositories/courses.ts'
import { deploymentsOf } from '../../repositories/deployments.ts'
import { findMerge, mergedInto } from '../../repositories/merges.ts'
import { findSnapshot } from '../../repositories/snapshots.ts'
import { findVersion, findVersionById } from '../../repositories/templates.ts'
import { asOfIn } from '../asOf.ts'
import { bodyOf, numberIn, parameter, type Handler, type Handling } from '../handler.ts'
import { HttpProblem, notFound } from '../problem.ts'
import { pageDocument } from '../safeHtml.ts'

export const getCourses: Handler = async ({ pool, person, request, today }) =>
  (await listCourses(pool, person, asOfIn(request, today))).map((stored) => stored.summary)

/** The course of the address, if it is there and theirs to see. */
export const courseIn = async ({
  request,
  pool,
  person,
  today,
}: Handling): Promise<StoredCourse> => {
  const stored = await findCourse(
    pool,
    numberIn(request, 'id', 'course'),
    person,
    asOfIn(request, today),
  )
  if (!stored) throw notFound('course')
  return stored
}

export const getCourseFacts: Handler = async (handling) => (await courseIn(handling)).facts

export const getCourse: Handler = async (handling): Promise<CourseDetail> => {
  const { pool, request, today } = handling
  const stored = await courseIn(handling)
  const { id } = stored.summary
  const asOf = asOfIn(request, today)
  // What is shown is always of what is stored: where it changed since, or another day is looked at, it is judged now. The
  // platform is not asked.
  if (stored.templateId !== null && stored.summary.readAt !== null)
    await judgeAgain(pool, stored, asOf, today)
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
  }
}

const mergesOf = async (
  { pool, person, today }: Handling,
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

/** A page of a course as a document of its own, for a sandboxed frame: no script, no form, nothing fetched but images of the platform. */
export const getItem: Handler = async (handling) => {
  const { pool, request, response, platformUrl } = handling
  const stored = await courseIn(handling)
  const snapshot = await findSnapshot(pool, stored.summary.id)
  const placed =
    snapshot &&
    everyCourseItem(snapshot.course).find(({ item }) => item.id === parameter(request, 'item'))
  if (!placed) throw notFound('page')
  response
    .set(
      'Content-Security-Policy',
      `sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src ${new URL(platformUrl).origin}; frame-ancestors 'self'`,
    )
    .set('X-Frame-Options', 'SAMEORIGIN')
    .type('html')
    .send(pageDocument('Page', placed.item.html ?? '<p>It has no page.</p>', platformUrl))
  return undefined
}

export const getReport: Handler = async (handling) => {
  const { pool, request, response, today } = handling
  const stored = await courseIn(handling)
  const result = await findCheck(pool, stored.summary.id, asOfIn(request, today))
  if (!result)
    throw new HttpProblem(404, 'not-checked', 'the course has not been checked as of this date')
  response.attachment(`check-${stored.summary.platformId}-${result.asOf}.json`)
  return result
}

export const postVersion: Handler = async (handling) => {
  const { pool, request, person } = handling
  const stored = await courseIn(handling)
  const { template, version } = bodyOf(PutUnder, request)
  const found = await findVersion(pool, template, version)
  if (!found) throw notFound('version')
  if (stored.summary.state === 'deployed')
    throw new HttpProblem(
      409,
      'deployed',
      'the course is judged by the version that was deployed to it',
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
}

/** Judges a course by the strengths and parameters of a newer version; its parts, names and texts stay those of its own. */
export const postStrengths: Handler = async (handling) => {
  const { pool, request, person } = handling
  const stored = await courseIn(handling)
  const { version } = bodyOf(AdoptStrengths, request)
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
}
