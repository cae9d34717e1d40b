import type { pageRoutes } from '@wickerframe/contract'
import { hasAnswered, type HandlersOf } from '../http/handler.ts'
import {
  everyCourseItem,
  pageDifference,
  type BlockDifference,
  type PageDifference,
} from '@wickerframe/core'
import { checkInputs } from './checkStored.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { markedDocument, pageDocument } from '../http/safeHtml.ts'
import { findSnapshot } from '../snapshots/snapshots.ts'
import { courseIn, type AboutCourse } from '../courses/routes.ts'

const differenceIn = async (
  handling: AboutCourse & { at: { item: string } },
): Promise<PageDifference> => {
  const { pool, today, at, query } = handling
  const stored = await courseIn(handling)
  const inputs = await checkInputs(pool, stored, query.asOf ?? today, today)
  if (!inputs)
    throw new HttpProblem(409, 'no-template', 'the course is under no template, or was never read')
  const difference = pageDifference(inputs, at.item)
  if (!difference.ok) throw new HttpProblem(409, 'unusable', 'the template does not fit the course')
  if (!difference.value) throw notFound('page')
  return difference.value
}

const departs = ({ state }: BlockDifference): boolean => state !== 'unchanged' && state !== 'filled'

export const pageHandlers: HandlersOf<typeof pageRoutes> = {
  /** A page of a course as a document of its own, for a sandboxed frame: no script, no form, nothing fetched but images of the platform. */
  coursePage: async (handling) => {
    const { pool, response, platformUrl, at } = handling
    const stored = await courseIn(handling)
    const snapshot = await findSnapshot(pool, stored.summary.id)
    const placed =
      snapshot && everyCourseItem(snapshot.course).find(({ item }) => item.id === at.item)
    if (!placed) throw notFound('page')
    response
      .set(
        'Content-Security-Policy',
        `sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src ${new URL(platformUrl).origin}; frame-ancestors 'self'`,
      )
      .set('X-Frame-Options', 'SAMEORIGIN')
      .type('html')
      .send(pageDocument('Page', placed.item.html ?? '<p>It has no page.</p>', platformUrl))
    return hasAnswered
  },
  /** A page block by block, those that depart first; without its HTML, which is shown only in a frame. */
  pageDifference: async (handling) => {
    const { name, part, notRead, stretches, missing } = await differenceIn(handling)
    const blocks = [...stretches.flatMap(({ block }) => (block ? [block] : [])), ...missing]
    return {
      name,
      part,
      notRead,
      blocks: [...blocks.filter(departs), ...blocks.filter((block) => !departs(block))],
    }
  },
  /** The student’s page with what departs marked in it, for a sandboxed frame. */
  markedPage: async (handling) => {
    const { response, platformUrl } = handling
    const page = await differenceIn(handling)
    response
      .set(
        'Content-Security-Policy',
        `sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src ${new URL(platformUrl).origin}; frame-ancestors 'self'`,
      )
      .set('X-Frame-Options', 'SAMEORIGIN')
      .type('html')
      .send(markedDocument(page, platformUrl))
    return hasAnswered
  },
}
