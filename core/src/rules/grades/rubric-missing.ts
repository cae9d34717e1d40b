import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule } from '../rule.ts'
import { partItems } from '../partItems.ts'

export const rubricMissing = defineRule({
  id: 'rubric-missing',
  group: 'grades',
  title: 'Work has the rubric it is judged by',
  why: 'Students cannot see by what their work is judged, and two class sections judge the same work differently.',
  untold: 'Whether another rubric than the template’s is as good: any rubric will do.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 2,
  messages: { none: '“{item}” has no rubric; “{wanted}” is set for it.' },
  check: (context) =>
    partItems(
      context,
      (part) => part.definition.settings.rubric !== undefined,
      ({ part, item }) => {
        const wanted = context.expected.template.rubrics.find(
          (rubric) => rubric.key === part.definition.settings.rubric,
        )
        return !wanted || item.rubric
          ? null
          : {
              message: 'none',
              values: { wanted: wanted.title },
              seen: 'no rubric',
              evidence: 'count',
              expected: wanted.title,
            }
      },
    ),
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    const rubric =
      there &&
      context.expected.template.rubrics.find(
        (rubric) => rubric.key === there.part.definition.settings.rubric,
      )
    return there && rubric ? [{ change: 'set-item', id: there.item.id, fields: { rubric } }] : []
  },
})
