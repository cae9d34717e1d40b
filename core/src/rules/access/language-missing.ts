import { z } from 'zod'
import { languageOf, oncePerPage } from '../../page/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'
import type { Change } from '../../course/index.ts'

/** The passages of a page that are long enough to tell in which language they are. */
const passagesIn = oncePerPage((page) =>
  page.paragraphs.flatMap(({ text, language: declared }) => {
    const language = languageOf(text)
    return language === null ? [] : [{ text, language, declared }]
  }),
)

export const languageMissing = defineRule({
  id: 'language-missing',
  group: 'access',
  title: 'The language is declared',
  why: 'A screen reader reads French with English sounds unless it is told.',
  wcag: ['3.1.1', '3.1.2'],
  untold: 'Short passages, of which nobody can be sure, and languages that are not known here.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    course: 'The course does not say in which language it is.',
    passage: '“{item}” has a passage in another language that does not say so: “{seen}”{also}.',
  },
  *check(context): Generator<Verdict> {
    const wanted = context.expected.template.settings.language ?? null
    const declared = context.course.settings?.language ?? null
    const told = { subject: aboutCourse, discriminator: 'course' } as const
    if (declared !== null) yield { ...told, outcome: 'passed' }
    else if (wanted === null || context.course.settings === undefined)
      yield { ...told, outcome: 'inapplicable' }
    else
      yield {
        ...told,
        outcome: 'failed',
        message: 'course',
        values: {},
        evidence: [{ kind: 'value', text: 'no language' }],
        expected: wanted,
      }
    const own = (declared ?? wanted ?? 'en').slice(0, 2)
    yield* pageFaults(context, {
      applies: ({ page }) => passagesIn(page).length > 0,
      faults: ({ page }) =>
        passagesIn(page).flatMap(({ text, language, declared }) =>
          declared === null && language !== own.toLowerCase() ? [text] : [],
        ),
      message: 'passage',
      expected: 'the language declared on the passage',
    })
  },
  mend: (verdict, context): Change[] =>
    verdict.message === 'course'
      ? [
          {
            change: 'set-course',
            settings: { ...context.course.settings, language: verdict.expected },
          },
        ]
      : [],
})
