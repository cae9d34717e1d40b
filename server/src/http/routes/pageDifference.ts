import { pageDifference, type BlockDifference, type PageDifference } from '@wickerframe/core'
import { checkInputs } from '../../jobs/judgeCourse.ts'
import { asOfIn } from '../asOf.ts'
import { parameter, type Handler, type Handling } from '../handler.ts'
import { HttpProblem, notFound } from '../problem.ts'
import { markedDocument } from '../safeHtml.ts'
import { courseIn } from './courses.ts'

const differenceIn = async (handling: Handling): Promise<PageDifference> => {
  const { pool, request, today } = handling
  const stored = await courseIn(handling)
  const inputs = await checkInputs(pool, stored, asOfIn(request, today), today)
  if (!inputs)
    throw new HttpProblem(409, 'no-template', 'the course is under no template, or was never read')
  const difference = pageDifference(inputs, parameter(request, 'item'))
  if (!difference.ok) throw new HttpProblem(409, 'unusable', 'the template does not fit the course')
  if (!difference.value) throw notFound('page')
  return difference.value
}

const departs = ({ state }: BlockDifference): boolean => state !== 'unchanged' && state !== 'filled'

/** A page block by block, those that depart first; without its HTML, which is shown only in a frame. */
export const getPageDifference: Handler = async (handling) => {
  const { name, part, notRead, stretches, missing } = await differenceIn(handling)
  const blocks = [...stretches.flatMap(({ block }) => (block ? [block] : [])), ...missing]
  return {
    name,
    part,
    notRead,
    blocks: [...blocks.filter(departs), ...blocks.filter((block) => !departs(block))],
  }
}

/** The student’s page with what departs marked in it, for a sandboxed frame. */
export const getMarkedPage: Handler = async (handling) => {
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
  return undefined
}
