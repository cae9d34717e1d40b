import type { ExpectedPart, ExpectedQuestion } from '../expand/index.ts'
import { isModule, isTakenHere, pointsOf } from '../template/index.ts'

/** A question of nobody's subject: it can be answered, and no two of them are one. */
const own = (number: number, points: number): ExpectedQuestion => ({
  key: `own-${number}`,
  left: null,
  body: {
    kind: 'one-answer',
    text: `<p>Which of these did we settle together under number ${number}?</p>`,
    points,
    choices: [
      { text: 'What is written down here', right: true },
      { text: 'What nobody has heard of', right: false },
    ],
    shuffled: true,
  },
})

/**
 * The questions of an assessment once a good instructor was there: samples have given way to questions of their own, as many as are
 * asked for, whose points come to what the assessment is worth.
 */
export const questionsFilledIn = ({ definition, questions }: ExpectedPart): ExpectedQuestion[] => {
  if (isModule(definition)) return []
  const stand = questions.filter(({ left }) => left !== 'sample')
  const samples = questions.length - stand.length
  const isEmpty =
    stand.length === 0 && definition.kind === 'assessment' && isTakenHere(definition.settings)
  const asked = Math.max(samples, definition.questions?.asked?.atLeast ?? 0, isEmpty ? 1 : 0)
  if (asked === 0) return stand
  const { points } = definition.settings
  const rest = points === undefined ? asked : points - pointsOf(stand.map(({ body }) => body))
  // Where the template leaves nothing for them, that is told of the template.
  const each = rest <= 0 ? 1 : Math.floor((rest / asked) * 100) / 100
  const last = rest <= 0 ? 1 : Math.round((rest - each * (asked - 1)) * 100) / 100
  return [
    ...stand,
    ...Array.from({ length: asked }, (_, i) => own(i + 1, i === asked - 1 ? last : each)),
  ]
}
