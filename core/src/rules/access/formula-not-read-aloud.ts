import { z } from 'zod'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

/** What pictures of formulas are called by what draws them. */
const drawnFormula = /equation|formula|latex|[?&]tex=/i

export const formulaNotReadAloud = defineRule({
  id: 'formula-not-read-aloud',
  group: 'access',
  title: 'Formulas can be read aloud',
  why: 'Who does not see a formula hears its signs one by one, or nothing where it is a picture.',
  wcag: ['1.1.1'],
  untold:
    'A formula of one sign, and a picture that has words, or whose name does not say that it is of a formula.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { mute: 'In “{item}” the formula {seen}{also} has no words to be read aloud.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.formulas.length + page.images.length > 0,
      faults: ({ page }) => [
        ...page.formulas
          .filter(({ text, alternativeText }) => alternativeText === null && text.includes(' '))
          .map(({ text }) => text),
        ...page.images
          .filter(
            ({ source, alternativeText }) => alternativeText === '' && drawnFormula.test(source),
          )
          .map(({ source }) => source),
      ],
      message: 'mute',
      expected: 'alttext on the formula, or alternative text on its picture: how it is said',
      evidence: 'value',
    }),
})
