import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import type { Change } from '../../course/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const practiceCounted = defineRule({
  id: 'practice-counted',
  group: 'grades',
  title: 'Practice does not count',
  why: 'Students told to try freely find their first try in the grade.',
  untold: 'Own work that does not call itself practice.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { counted: '“{name}” is practice, and counts {points} points{where}.' },
  *check(context): Generator<Verdict> {
    const outside = new Set(
      (context.course.grading?.categories ?? [])
        .filter((category) => !category.counts)
        .map((category) => foldedName(category.name)),
    )
    for (const { item } of context.placedItems) {
      const part = context.partOf(item.id)
      const wanted = part?.definition.settings.practice
      const practice =
        wanted === true ||
        (wanted === undefined && item.work?.practice === true) ||
        (part === null && /^practi[cs]e\b/.test(foldedName(item.name)))
      if (!practice) continue
      const subject = aboutFound(context, item)
      const counts =
        (item.points ?? 0) > 0 &&
        item.work?.practice !== true &&
        !outside.has(foldedName(item.category ?? ''))
      if (!counts) yield { subject, outcome: 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'counted',
          values: {
            name: item.name,
            points: String(item.points),
            where: item.category === null ? '' : ` in ${item.category}`,
          },
          evidence: [{ kind: 'value', text: `${item.points} points` }],
          expected: 'no points in the grade',
          itemId: item.id,
        }
    }
  },
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    return item
      ? [{ change: 'set-item', id: item.id, fields: { work: { ...item.work, practice: true } } }]
      : []
  },
})
