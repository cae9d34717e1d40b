import { readDocument } from '../document/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { Template } from '../template/index.ts'
import { everyExpected, expandCourse, type ExpectedPart } from './index.ts'

/** The page of a part in a template whose week overview holds these blocks. */
export const pageWith = (
  blocks: object[],
  more: object = {},
  week = 2,
  facts = exampleFacts(),
): ExpectedPart => {
  const template = exampleTemplate()
  const document = JSON.parse(JSON.stringify({ ...template, ...more })) as {
    parts: { items: { blocks: object[] }[] }[]
  }
  const overview = document.parts[1]?.items[0]
  if (!overview) throw new Error('the example has an overview')
  overview.blocks = blocks
  const read = readDocument(Template, document)
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  const expansion = expandCourse({ template: read.value, facts, mintFrom: 'blocks' })
  const found = expansion.ok
    ? everyExpected(expansion.value.parts).find(
        (part) => part.key === 'week-overview' && part.week?.number === week,
      )
    : undefined
  if (!found) throw new Error('it can be worked out')
  return found
}
/** The HTML of one such block. */
export const htmlOf = (block: object, more: object = {}, week = 2, facts = exampleFacts()) =>
  pageWith([block], more, week, facts).blocks[0]?.html ?? ''
