import { z } from 'zod'
import { analysePage, askedOf } from '../../page/index.ts'
import { blockKindWords, helpWith, leftAs, type KeptBlockBody } from '../../template/index.ts'
import { defineRule, type Verdict } from '../rule.ts'

export const fillInUnfilled = defineRule({
  id: 'fill-in-unfilled',
  group: 'page content',
  title: 'What the instructor is to fill in is filled in',
  why: 'Students read “[your office hours]” and know that nobody looked at the course.',
  untold:
    'Spots that were taken out of the page: they are missing blocks. What may stay open is not told.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: {
    unfilled: '“{item}” still asks: “{prompt}”.',
    empty: '“{item}” has nothing where it asks: “{prompt}”.',
    piecewise: '“{item}” still asks for the {block}: {pieces}.',
    spots: '“{item}” still says {pieces}.',
    'piecewise-empty': '“{item}” has nothing where it asks for the {block}.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      if (!askedOf(block)) continue
      if (!stands) yield { ...told, outcome: 'absent' }
      // A spot that was taken out is told as a missing block.
      else if (stands.reading.state === 'missing' || block.strength === 'may')
        yield { ...told, outcome: 'inapplicable' }
      else if (
        stands.reading.state !== 'unfilled' &&
        !(stands.reading.state === 'altered' && stands.reading.stillAsks.length > 0)
      )
        yield { ...told, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else {
        const { text, stillAsks } = stands.reading
        yield {
          ...told,
          ...asking(block.definition, stands.there.item.name, text === '', stillAsks),
          outcome: 'failed',
          evidence: [{ kind: 'words', text: text === '' ? 'nothing' : text.slice(0, 300) }],
          itemId: stands.there.item.id,
          together: `${part.key}/${block.key}`,
        }
      }
    }
  },
})

/** What is said of a spot that still asks, and what is expected there. */
const asking = (
  definition: KeptBlockBody,
  item: string,
  isEmpty: boolean,
  stillAsks: readonly string[],
): { message: string; values: Record<string, string>; expected: string } => {
  const label = ('label' in definition && definition.label) || null
  const expected = (words: string) => [words, ...helpIn(definition)].reduce(asSentences)
  if (definition.kind === 'fill-in') {
    const { prompt } = definition
    return {
      message: isEmpty ? 'empty' : 'unfilled',
      values: { item, prompt },
      expected: expected(label ?? prompt),
    }
  }
  const block = blockKindWords(definition.kind)
  if (leftAs(definition) !== 'asked')
    return {
      message: 'spots',
      values: { item, pieces: inShort(stillAsks) },
      expected: expected('what belongs there'),
    }
  return isEmpty
    ? { message: 'piecewise-empty', values: { item, block }, expected: expected(label ?? block) }
    : {
        message: 'piecewise',
        values: { item, block, pieces: inShort(stillAsks) },
        expected: expected(label ?? block),
      }
}

/** One after the other, with a full stop between them where the first has none of its own. */
const asSentences = (first: string, next: string): string =>
  `${first}${/[.?!…:]$/.test(first) ? '' : '.'} ${next}`

const shown = 3
const longest = 80

/** The first few prompts, quoted, and how many more there are. */
const inShort = (prompts: readonly string[]): string => {
  const quoted = prompts
    .slice(0, shown)
    .map((text) => `“${text.length > longest ? `${text.slice(0, longest - 1)}…` : text}”`)
  const more = prompts.length - quoted.length
  return quoted.join(', ') + (more > 0 ? ` and ${more} more` : '')
}

/** What the template says to help with an answer. */
const helpIn = (definition: KeptBlockBody): string[] => {
  const { hint, example } = helpWith(definition)
  return [...(hint ? [hint] : []), ...(example ? [`For example: ${wordsOf(example)}`] : [])]
}

const wordsOf = (html: string): string =>
  analysePage(html)
    .paragraphs.map(({ text }) => text)
    .join(' ')
