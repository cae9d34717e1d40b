import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule } from '../rule.ts'
import { partItems } from '../partItems.ts'

export const postBeforeReading = defineRule({
  id: 'post-before-reading',
  group: 'settings',
  title: 'Students write before they read the others',
  why: 'Where the first answer can be read by all, thirty students write it again.',
  untold: 'Discussions for which the template asks nothing.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    open: 'In “{item}” students {seen} the others before they write.',
    shut: 'In “{item}” students must write first, which the template does not want.',
  },
  check: (context) =>
    partItems(
      context,
      (part) => part.kind === 'discussion' && part.definition.settings.postFirst !== undefined,
      ({ part, item }) => {
        const wanted = part.definition.settings.postFirst
        const seen = item.work?.postFirst ?? false
        return item.kind !== 'discussion' || seen === wanted
          ? null
          : {
              message: wanted ? 'open' : 'shut',
              values: { seen: 'can read' },
              seen: seen ? 'write first' : 'read first',
              expected: wanted ? 'write first' : 'read first',
            }
      },
    ),
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    return item
      ? [
          {
            change: 'set-item',
            id: item.id,
            fields: { work: { ...item.work, postFirst: verdict.expected === 'write first' } },
          },
        ]
      : []
  },
})
