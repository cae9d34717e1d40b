import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'
import { partItems } from '../partItems.ts'

export const categoryMissing = defineRule({
  id: 'category-missing',
  group: 'grades',
  title: 'Grade categories stand, and work is in the right one',
  why: 'Work outside its category does not count where students are told it counts.',
  untold: 'Further categories of the instructor’s own, and their weights.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    gone: 'The grade category “{wanted}” is not in the course.',
    item: '“{item}” is in {seen}; it belongs in “{wanted}”.',
  },
  *check(context): Generator<Verdict> {
    const has = new Set(
      (context.course.grading?.categories ?? []).map((category) => foldedName(category.name)),
    )
    for (const category of context.expected.template.grading.categories) {
      const told = { subject: aboutCourse, discriminator: category.key } as const
      if (has.has(foldedName(category.name))) yield { ...told, outcome: 'passed' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'gone',
          values: { wanted: category.name },
          evidence: [{ kind: 'count', text: `no category ${category.name}` }],
          expected: category.name,
          together: 'categories',
        }
    }
    yield* partItems(
      context,
      (part) => part.definition.settings.category !== undefined,
      ({ part, item }) => {
        const wanted = part.definition.settings.category ?? ''
        return item.category !== null && foldedName(item.category) === foldedName(wanted)
          ? null
          : {
              message: 'item',
              values: {
                seen: item.category === null ? 'no category' : `“${item.category}”`,
                wanted,
              },
              seen: item.category ?? 'none',
              expected: wanted,
            }
      },
    )
  },
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    return item ? [{ change: 'set-item', id: item.id, fields: { category: verdict.expected } }] : []
  },
})
