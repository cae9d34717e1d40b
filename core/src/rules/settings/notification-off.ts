import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule } from '../rule.ts'
import { partItems } from '../partItems.ts'

export const notificationOff = defineRule({
  id: 'notification-off',
  group: 'settings',
  title: 'Students are told of required discussions',
  why: 'A required discussion goes unseen until its due date has passed. Free ones may be silent.',
  untold: 'Discussions of the instructor’s own, and those that may be left out.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { off: 'Students are not told of new posts in “{item}”.' },
  check: (context) =>
    partItems(
      context,
      (part) =>
        part.kind === 'discussion' &&
        part.definition.settings.notification === true &&
        part.strength !== 'may',
      ({ item }) =>
        item.kind !== 'discussion' || item.work?.notification === true
          ? null
          : {
              message: 'off',
              values: {},
              seen: item.work?.notification === false ? 'off' : 'not set',
              expected: 'on',
            },
    ),
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    return item
      ? [
          {
            change: 'set-item',
            id: item.id,
            fields: { work: { ...item.work, notification: true } },
          },
        ]
      : []
  },
})
