import { letIn } from '../allow/index.ts'
import type { ExpectedBlock, ExpectedCourse, ExpectedPart } from '../expand/index.ts'
import { heading } from '../template/index.ts'
import { perfectAnswer } from './perfectAnswer.ts'

/**
 * An expected course as it stands once a good instructor was there: every fill-in has an answer, one for the whole course the same
 * one everywhere, and the notes to the instructor are gone.
 */
export const filledIn = (expected: ExpectedCourse): ExpectedCourse => {
  const [instructor] = expected.facts.instructors
  const forAll = new Map<string, string>()
  let count = 0
  const fill = (block: ExpectedBlock): ExpectedBlock => {
    const { definition } = block
    if (definition.kind !== 'fill-in' || definition.answer !== undefined || block.answer !== null)
      return block
    const isForAll = definition.scope === 'course'
    const answer =
      (isForAll ? forAll.get(block.key) : undefined) ??
      perfectAnswer(definition, ++count, instructor)
    if (isForAll) forAll.set(block.key, answer)
    const above = definition.label ? heading(definition.label) : ''
    return { ...block, html: letIn(above + answer).html }
  }
  const filled = (part: ExpectedPart): ExpectedPart => ({
    ...part,
    blocks: part.blocks.filter(({ kind }) => kind !== 'guidance-note').map(fill),
    items: part.items.map(filled),
  })
  return { ...expected, home: filled(expected.home), parts: expected.parts.map(filled) }
}
