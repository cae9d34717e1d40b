import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const homePageSet = defineRule({
  id: 'home-page-set',
  group: 'home page',
  title: 'The course opens on its home page',
  why: 'Students who land on a bare list do not find who teaches the course or where to begin.',
  untold:
    'What stands on the page that is set: while another page is the template’s home page by its name, content or marks, only the setting is told.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    none: 'The course has no home page.',
    other: 'The course opens on “{name}”, not on “{wanted}”.',
  },
  *check(context): Generator<Verdict> {
    const subject = aboutCourse
    const { homePage } = context.course
    const wanted = context.itemFor(context.expected.home)
    const failed = { subject, outcome: 'failed', expected: context.expected.home.name } as const
    if (homePage === null)
      yield {
        ...failed,
        message: 'none',
        values: {},
        evidence: [{ kind: 'value', text: 'no home page' }],
      }
    else if (wanted && wanted.item.id === homePage) yield { subject, outcome: 'passed' }
    else {
      const name = context.placed(homePage)?.item.name ?? homePage
      yield {
        ...failed,
        message: 'other',
        values: { name, wanted: context.expected.home.name },
        evidence: [{ kind: 'words', text: name }],
        itemId: homePage,
      }
    }
  },
  mend(_, context): Change[] {
    const wanted = context.itemFor(context.expected.home)
    return wanted ? [{ change: 'set-home', item: wanted.item.id }] : []
  },
})
