import { letIn } from '../../allow/index.ts'
import { handoutsIn } from '../../files/index.ts'
import { analysePage } from '../../page/index.ts'
import { homePageKey, isModule, questionName } from '../../template/index.ts'
import { defineCheck, imagesOf, type Found } from '../remark.ts'

export const questionText = defineCheck({
  id: 'question-text',
  severity: 'error',
  title: 'What questions ask can be read by everybody, and leads somewhere',
  messages: {
    active: 'The question {question} holds {what}, which is not let into a course. Take it out.',
    image: 'An image in the question {question} has no alternative text. Say what it shows.',
    absent: 'The image {image} in the question {question} is not among those of this template.',
    formula:
      'A formula in the question {question} has no words to be read aloud. Say how it is said.',
    file: 'A link in the question {question} leads to a file that this template does not hold.',
    link: 'A link in the question {question} leads to a part that is not in this template.',
  },
  *find(proof): Generator<Found> {
    const keys = new Set([homePageKey, ...proof.parts.map(({ key }) => key)])
    const images = new Set(proof.template.assets.map(({ fileName }) => fileName))
    const files = new Set(proof.template.files.map(({ key }) => key))
    for (const part of proof.parts) {
      if (isModule(part)) continue
      for (const { body } of part.questions?.list ?? []) {
        const told = (message: string, values: Record<string, string> = {}): Found => ({
          part: part.key,
          message,
          values: { question: questionName(body), ...values },
        })
        const refused = [...new Set(letIn(body.text).refused)]
        if (refused.length > 0) yield told('active', { what: refused.join(', ') })
        const page = analysePage(body.text)
        if (page.images.some(({ alternativeText }) => alternativeText === null)) yield told('image')
        const absent = imagesOf(body.text).find((name) => !images.has(name))
        if (absent !== undefined) yield told('absent', { image: absent })
        if (
          page.formulas.some(
            ({ alternativeText, text }) => alternativeText === null && text.includes(' '),
          )
        )
          yield { ...told('formula'), severity: 'warning' }
        if (handoutsIn(body.text).some((key) => !files.has(key))) yield told('file')
        if (
          [...body.text.matchAll(/href="part:([a-z0-9-]+)"/g)].some(
            ([, key = '']) => !keys.has(key),
          )
        )
          yield told('link')
      }
    }
  },
})
