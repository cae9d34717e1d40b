import { letIn } from '../allow/index.ts'
import type { ExpectedBlock, ExpectedCourse, ExpectedPart } from '../expand/index.ts'
import { blockKind, isNote, leftAs } from '../template/index.ts'
import { fileFilledIn } from './fileFilledIn.ts'
import { questionsFilledIn } from './questionsFilledIn.ts'
import { perfectAnswer, perfectPiece } from './perfectAnswer.ts'

/**
 * An expected course as it stands once a good instructor was there: all that is asked for has an answer, one for the whole course the
 * same one everywhere, and the notes to the instructor are gone.
 */
export const filledIn = (expected: ExpectedCourse): ExpectedCourse => {
  const [instructor] = expected.facts.instructors
  const forAll = new Map<string, string>()
  let count = 0
  const typeOf = ({ kind, definition }: ExpectedBlock) =>
    (leftAs(definition) === 'asked' ? blockKind(kind).answer : null) ?? 'text'
  /** Each piece that asks gives way to an answer, in its place. */
  const fillPieces = (block: ExpectedBlock): ExpectedBlock => {
    let { html } = block
    let from = 0
    for (const piece of block.asks) {
      const at = html.indexOf(piece, from)
      const answer = isNote(piece) ? '' : perfectPiece(piece, typeOf(block), ++count)
      html = html.slice(0, at) + answer + html.slice(at + piece.length)
      from = at + answer.length
    }
    return { ...block, html: letIn(html).html }
  }
  const fill = (block: ExpectedBlock): ExpectedBlock => {
    const { definition } = block
    if (definition.kind !== 'fill-in') return block.asks.length > 0 ? fillPieces(block) : block
    if (definition.answer !== undefined || block.answer !== null) return block
    const isForAll = definition.scope === 'course'
    const answer =
      (isForAll ? forAll.get(block.key) : undefined) ??
      perfectAnswer(definition, ++count, instructor)
    if (isForAll) forAll.set(block.key, answer)
    const above = definition.label ? (/<h3[^>]*>.*?<\/h3>/s.exec(block.html)?.[0] ?? '') : ''
    return { ...block, html: letIn(above + answer).html }
  }
  const filled = (part: ExpectedPart): ExpectedPart => ({
    ...part,
    questions: questionsFilledIn(part),
    file: fileFilledIn(part),
    blocks: part.blocks.filter(({ kind }) => kind !== 'guidance-note').map(fill),
    items: part.items.map(filled),
  })
  return { ...expected, home: filled(expected.home), parts: expected.parts.map(filled) }
}
