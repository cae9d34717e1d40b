import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { QuestionBody } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { readTypedQuestions } from './readTyped.ts'

const words = fc
  .array(
    fc.constantFrom('tide', 'Flut', 'marée', 'παλίρροια', 'of', 'the', '12', 'b', 'x&y', '<i>'),
    { minLength: 1, maxLength: 6 },
  )
  .map((all) => `Say ${all.join(' ')} now`)
const feedback = fc.option(words, { nil: undefined })
const points = fc.constantFrom(1, 2, 2.5, 10)
const asked = (text: string) =>
  text.replace(/[&<>]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[sign] ?? sign)
const shared = fc
  .record({ text: words, points, feedback })
  .map(({ text, points, feedback }) => ({
    text: `<p>${asked(text)}</p>`,
    points,
    ...(feedback === undefined ? {} : { feedback }),
  }))
const choices = (least: number, most: number) =>
  fc
    .uniqueArray(words, { minLength: 2, maxLength: 6 })
    .chain((texts) =>
      fc
        .uniqueArray(fc.nat(texts.length - 1), {
          minLength: Math.min(least, texts.length),
          maxLength: Math.min(most, texts.length),
        })
        .map((right) => texts.map((text, i) => ({ text, right: right.includes(i) }))),
    )
const question: fc.Arbitrary<QuestionBody> = fc.oneof(
  fc
    .tuple(shared, choices(1, 1))
    .map(([of, all]) => ({ ...of, kind: 'one-answer' as const, choices: all, shuffled: true })),
  fc
    .tuple(shared, choices(2, 6))
    .map(([of, all]) => ({
      ...of,
      kind: 'several-answers' as const,
      choices: all,
      shuffled: true,
    })),
  fc
    .tuple(shared, fc.boolean())
    .map(([of, right]) => ({ ...of, kind: 'true-or-false' as const, right })),
  fc
    .tuple(shared, fc.array(words, { minLength: 1, maxLength: 3 }))
    .map(([of, answers]) => ({ ...of, kind: 'short-answer' as const, answers })),
  fc
    .tuple(shared, words)
    .map(([of, answer]) => ({ ...of, kind: 'pattern' as const, answers: [`*${answer}*`] })),
  shared.map((of) => ({ ...of, kind: 'essay' as const })),
)

/** The ways in which people number, letter and mark. */
const ways = fc.record({
  number: fc.constantFrom(
    (n: number) => `${n}. `,
    (n: number) => `${n}) `,
    (n: number) => `Question ${n}: `,
  ),
  letter: fc.constantFrom(
    (i: number, right: boolean) => `${right ? '*' : ''}${String.fromCodePoint(97 + i)}) `,
    (i: number, right: boolean) => `  ${String.fromCodePoint(65 + i)}. ${right ? '* ' : ''}`,
    (i: number, right: boolean) => `\t(${String.fromCodePoint(97 + i)}) ${right ? '✓ ' : ''}`,
  ),
  end: fc.constantFrom('\n', '\r\n', '\n\n'),
})
type Ways = typeof ways extends fc.Arbitrary<infer W> ? W : never

const typed = (body: QuestionBody, n: number, { number, letter }: Ways): string[] => {
  const said = body.text
    .replace(/<\/?p>/g, '')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&amp;/g, '&')
  return [
    `${number(n)}${said}${body.points === 1 ? '' : ` (${body.points} points)`}`,
    ...('choices' in body ? body.choices.map(({ text, right }, i) => letter(i, right) + text) : []),
    ...('answers' in body ? body.answers.map((text) => `Answer: ${text}`) : []),
    ...(body.kind === 'true-or-false' ? [`Answer: ${body.right ? 'True' : 'False'}`] : []),
    ...(body.feedback === undefined ? [] : [`Feedback: ${body.feedback}`]),
  ]
}

describe('a typed list of questions', () => {
  it('is read as it was meant, however it is numbered, lettered and marked', () => {
    fc.assert(
      fc.property(fc.array(question, { minLength: 1, maxLength: 6 }), ways, (bodies, way) => {
        const text = bodies.flatMap((body, i) => typed(body, i + 1, way)).join(way.end)
        const read = readTypedQuestions(text)
        expect(read.questions.map(({ body }) => body)).toEqual(bodies)
        expect(read.unread).toEqual([])
      }),
      propertyRuns(),
    )
  })
  it('of anything at all is read without a fault of ours, and loses no line', () => {
    const line = fc.oneof(
      fc.string({ maxLength: 60 }),
      fc.constantFrom(
        '1.',
        '2) ',
        '*',
        '*b)',
        'a) *',
        'Answer:',
        'Answer: ;',
        '[ ]',
        '~',
        '(2 points)',
      ),
    )
    fc.assert(
      fc.property(fc.array(line, { maxLength: 30 }), (lines) => {
        const { questions, unread } = readTypedQuestions(lines.join('\n'))
        const told = JSON.stringify([questions, unread])
        for (const word of lines.join(' ').match(/[a-z]{5,}/g) ?? [])
          if (!/nswer|point|questi|feedba|patter|explan|ration|model|corre|right/.test(word))
            expect(told).toContain(word)
      }),
      propertyRuns(),
    )
  })
})
