import { z } from 'zod'
import { askedOf, countWords } from '../../page/index.ts'
import { blockKindWords } from '../../template/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

const asked: Readonly<Record<string, string>> = {
  image: 'an image',
  file: 'a file',
  video: 'a film',
  date: 'a date',
  'e-mail': 'an e-mail address',
  link: 'a link',
  list: 'a list',
  table: 'a table',
}

const anyLength: { minWords?: number; maxWords?: number } = {}

export const fillInConstraint = defineRule({
  id: 'fill-in-constraint',
  group: 'page content',
  title: 'Answers are of the kind and length asked for',
  why: '“See me” where a week should be described, or “soon” where a date should stand, tells students nothing.',
  untold:
    'Whether an answer is a good one. Spots that are still unfilled are told by the rule for those; a template that asks for no number of words and no kind of answer gets none told.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    short: '“{item}” answers “{prompt}” in {count words}; at least {wanted} are wanted.',
    long: '“{item}” answers “{prompt}” in {count words}; at most {wanted} are wanted.',
    kind: '“{item}” answers “{prompt}” without {wanted}.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      const { definition } = block
      const wanted = askedOf(block)
      const { minWords, maxWords } = definition.kind === 'fill-in' ? definition : anyLength
      if (
        !wanted ||
        (minWords === undefined && maxWords === undefined && asked[wanted.type] === undefined)
      )
        continue
      if (!stands) {
        yield { ...told, outcome: 'absent' }
        continue
      }
      const { reading, there } = stands
      if (reading.state !== 'filled') {
        yield { ...told, outcome: 'inapplicable' }
        continue
      }
      const count = minWords === undefined && maxWords === undefined ? 0 : countWords(reading.text)
      const fault = !reading.ofType
        ? { message: 'kind', wanted: asked[wanted.type] ?? '' }
        : minWords !== undefined && count < minWords
          ? { message: 'short', wanted: String(minWords) }
          : maxWords !== undefined && count > maxWords
            ? { message: 'long', wanted: String(maxWords) }
            : null
      if (!fault) yield { ...told, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: fault.message,
          values: {
            item: there.item.name,
            prompt:
              definition.kind === 'fill-in' ? definition.prompt : blockKindWords(definition.kind),
            count: String(count),
            wanted: fault.wanted,
          },
          evidence: [{ kind: 'words', text: reading.text.slice(0, 300) }],
          expected: fault.message === 'kind' ? fault.wanted : `${fault.wanted} words`,
          itemId: there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
})
